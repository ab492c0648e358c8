-- Films rendered from takes: small previews of a remedy, and full-size ones that travel. recipe is
-- the core's dataclass as JSON; t_s and gusts of it are in the take's own terms. gust, peak_gust:
-- of the preview, measured again; unmeasured says why not.
create table render (
    id integer primary key,
    take_id integer not null references take (id),
    purpose text not null check (purpose in ('preview', 'film')),
    recipe text not null,
    made_at text not null,
    state text not null check (state in ('queued', 'running', 'done', 'failed', 'cancelled')),
    progress real,
    attempts integer not null default 0,
    cancel_requested integer not null default 0,
    error_code text,
    error_what text,
    error_next text,
    gust real,
    peak_gust real,
    unmeasured text,
    size_bytes integer
) strict;

create index render_take on render (take_id);
create index render_state on render (state);

-- The shooter's own eye: smooth enough or not, of a take as shot or of a polished preview (then
-- crop_pct is set). gust: what it read when it was marked, on the brief's screen.
create table mark (
    take_id integer not null references take (id),
    view text not null,
    smooth integer not null,
    blind integer not null,
    feel text not null,
    gust real not null,
    crop_pct real,
    marked_at text not null,
    primary key (take_id, view)
) strict;

-- What the shooter settled: kept, rejected, or to be filmed again.
alter table take add column choice text check (choice in ('keep', 'reject', 'retake'));

-- Originals put aside to free space; they are gone for good a week later.
alter table clip add column cleared_at text;

-- Settings of the whole library, each as JSON.
create table setting (
    name text primary key,
    value text not null
) strict;
