-- A film on disk, named by its content. Facts stay null until it has been measured.
create table clip (
    id integer primary key,
    sha256 text not null unique,
    file text not null,
    size_bytes integer not null,
    width integer,
    height integer,
    fps real,
    variable_rate integer,
    duration_s real,
    claimed_s real,
    frames integer,
    codec text,
    has_sound integer,
    recorded_at text
) strict;

-- A recorded clip as the shooter sees it, with its brief in place.
create table take (
    id integer primary key,
    clip_id integer not null unique references clip (id),
    name text not null,
    imported_at text not null,
    deleted_at text,
    feel text not null,
    own_target real,
    screen text not null,
    delivery_fps real not null,
    wanted_s real not null,
    focal_eq_mm real not null,
    keep_sound integer not null
) strict;

-- The path of a clip, with the version of the method that made it.
create table measurement (
    clip_id integer primary key references clip (id),
    method text not null,
    measured_at text not null,
    path blob not null
) strict;

-- What the list shows of a take; derived from path and brief, rewritten with either.
create table summary (
    take_id integer primary key references take (id),
    gust real,
    peak_gust real,
    remedy text,
    ridge blob not null
) strict;

-- One measuring job a clip: what is waiting, running, or how it ended.
create table job (
    clip_id integer primary key references clip (id),
    state text not null check (state in ('queued', 'running', 'done', 'failed', 'cancelled')),
    progress real,
    attempts integer not null default 0,
    cancel_requested integer not null default 0,
    error_code text,
    error_what text,
    error_next text
) strict;

create index take_shown on take (deleted_at, imported_at);
create index summary_gust on summary (gust);
create index job_state on job (state);
