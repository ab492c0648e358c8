-- Drills of the shooter's own; shipped ones are read from the package. spec is the core's
-- dataclass as JSON.
create table drill (
    key text primary key,
    spec text not null
) strict;

-- Drills put away, shipped or own.
create table drill_archived (
    key text primary key
) strict;

-- A session as it was asked for and planned, both as JSON.
create table session (
    id integer primary key,
    name text not null,
    made_at text not null,
    ask text not null,
    plan text not null,
    setup_id integer references setup (id),
    accepted_at text,
    ended_at text
) strict;

-- Its takes in order, and what became of each.
create table session_take (
    session_id integer not null references session (id),
    position integer not null,
    block integer not null,
    drill_key text not null,
    variation_key text not null,
    state text not null check (state in ('planned', 'filmed', 'skipped')),
    filmed_at text,
    felt text check (felt in ('good', 'bad')),
    wind integer check (wind between 0 and 3),
    fatigue integer check (fatigue between 1 and 5),
    tension integer check (tension between 1 and 5),
    take_id integer references take (id),
    primary key (session_id, position)
) strict;

create unique index session_take_film on session_take (take_id) where take_id is not null;
create index session_take_drill on session_take (drill_key, variation_key);

-- The band that holds the largest share of a take's shake.
alter table summary add column top_band text;
update summary set stale = 1;
