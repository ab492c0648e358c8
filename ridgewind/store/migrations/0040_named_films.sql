-- A film is named by its content and an ending; no other name ever becomes a path.
create table clip_named (
    id integer primary key,
    sha256 text not null unique
        check (length(sha256) = 64 and sha256 not glob '*[^0-9a-f]*'),
    file text not null
        check (
            substr(file, 1, 65) = sha256 || '.'
            and length(file) between 66 and 70
            and substr(file, 66) not glob '*[^a-z0-9]*'
        ),
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
    recorded_at text,
    file_focal_mm real,
    file_focal_eq_mm real,
    interlaced integer,
    bits_per_pixel real,
    log_focal_eq_mm real,
    cleared_at text,
    file_capture_fps real
) strict;

insert into clip_named
select id, sha256, file, size_bytes, width, height, fps, variable_rate, duration_s, claimed_s,
    frames, codec, has_sound, recorded_at, file_focal_mm, file_focal_eq_mm, interlaced,
    bits_per_pixel, log_focal_eq_mm, cleared_at, file_capture_fps
from clip;

drop table clip;
alter table clip_named rename to clip;
