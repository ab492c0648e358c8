-- A camera's or phone's own turning rates that belong to a film, as a path, and where they lie in
-- it: offset_s is added to the log's times to have the film's.
create table motion_log (
    clip_id integer primary key references clip (id),
    name text not null,
    imported_at text not null,
    mapping text not null,
    rate_hz real not null,
    focal_eq_mm real not null,
    offset_s real,
    certainty real,
    correlation real,
    path blob not null
) strict;

-- What the columns of a log were said to be, by their names, for the next one like it.
create table log_mapping (
    columns text primary key,
    mapping text not null
) strict;

-- Set where a clip's path comes from turning rates: the focal length that it was worked out for.
alter table clip add column log_focal_eq_mm real;
