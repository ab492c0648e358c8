-- When the shooter has seen what a copy could not bring in; of those that ended before, nobody asks.
alter table folder_copy add column seen_at text;
update folder_copy set seen_at = asked_at;
