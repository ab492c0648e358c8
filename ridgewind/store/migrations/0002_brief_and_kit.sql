-- What a clip must be like. A brief without a name belongs to one take alone; parent_id is the
-- named one that it departed from.
create table brief (
    id integer primary key,
    name text,
    feel text not null,
    own_target real,
    screen text not null,
    delivery_fps real not null,
    delivery_width_px integer not null,
    delivery_height_px integer not null,
    wanted_s real not null,
    keep_sound integer not null,
    most_crop_pct real not null,
    why text not null,
    parent_id integer references brief (id),
    typical_key text unique,
    archived_at text,
    used_at text
) strict;

-- Cameras, lenses and supports; spec is the core's dataclass as JSON, never asked about in SQL.
create table kit_item (
    id integer primary key,
    kind text not null check (kind in ('camera', 'lens', 'support')),
    name text not null,
    spec text not null,
    typical_key text unique,
    archived_at text
) strict;

-- A combination that takes are filmed with; focal_eq_mm is derived, rewritten with its parts.
create table setup (
    id integer primary key,
    name text not null,
    camera_id integer not null references kit_item (id),
    lens_id integer not null references kit_item (id),
    optics text not null,
    bench text not null,
    focal_eq_mm real not null,
    typical_key text unique,
    archived_at text,
    used_at text
) strict;

create table setup_support (
    setup_id integer not null references setup (id),
    position integer not null,
    item_id integer not null references kit_item (id),
    primary key (setup_id, position)
) strict;

alter table take add column brief_id integer references brief (id);
alter table take add column setup_id integer references setup (id);
alter table take add column own_focal_eq_mm real;

insert into brief (id, feel, own_target, screen, delivery_fps, delivery_width_px,
                   delivery_height_px, wanted_s, keep_sound, most_crop_pct, why)
select id, feel, own_target, screen, delivery_fps, 1920, 1080, wanted_s, keep_sound, 10, ''
  from take;
update take set brief_id = id, own_focal_eq_mm = focal_eq_mm;

alter table take drop column feel;
alter table take drop column own_target;
alter table take drop column screen;
alter table take drop column delivery_fps;
alter table take drop column wanted_s;
alter table take drop column focal_eq_mm;
alter table take drop column keep_sound;

-- What the file itself says of its lens.
alter table clip add column file_focal_mm real;
alter table clip add column file_focal_eq_mm real;

-- Speed S of the picture, percent a second, without screen or lens; and whether the brief has
-- changed since the line was written.
alter table summary add column speed_pct_s real;
alter table summary add column stale integer not null default 0;
update summary set stale = 1;

create index take_brief on take (brief_id);
create index take_setup on take (setup_id);
create index summary_stale on summary (stale) where stale;
