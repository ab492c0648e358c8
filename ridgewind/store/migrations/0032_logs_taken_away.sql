-- Motion logs that were taken away from their films, the last of each, so that it can be undone.
create table motion_log_away (
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
