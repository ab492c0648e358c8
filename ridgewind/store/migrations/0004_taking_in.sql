-- The slate that was seen in a film: which take of which session, as its code says.
alter table clip add column slate_session integer;
alter table clip add column slate_take integer;

-- Files that were brought in from a folder or card, so that they are not offered again.
create table import_source (
    name text not null,
    size_bytes integer not null,
    modified_s integer not null,
    clip_id integer not null references clip (id),
    primary key (name, size_bytes, modified_s)
) strict;

-- Until when the slate was seen, s from the first frame; and the part of its film that a take
-- is, s from the first frame, null for all of it.
alter table clip add column slate_until_s real;
alter table take add column from_s real;
alter table take add column to_s real;
