-- What an example shows beside its gust, as JSON: its bands and its move. Null for briefs without one.
alter table brief add column likeness text;
