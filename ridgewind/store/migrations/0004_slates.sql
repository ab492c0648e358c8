-- The slate that was seen in a film: which take of which session, as its code says.
alter table clip add column slate_session integer;
alter table clip add column slate_take integer;
