-- A take is shown by the name that the shooter gave it (own_name), else by the drill and variation that
-- it is filed under (filed_name), else by its file's.
alter table take rename column name to file_name;
alter table take add column own_name text;
alter table take add column filed_name text;
alter table take add column name text generated always as (coalesce(own_name, filed_name, file_name)) virtual;

-- The first cause of a take's shake; known once its line has been worked out again.
alter table summary add column cause text;
update summary set stale = stale + 1;

-- What was changed in many takes at once, as it was before: JSON, so that it can be undone.
create table bulk_change (id integer primary key, made_at text not null, before text not null);
