-- An outing is a list of shots: planned, filmed on the spot, and met by takes afterwards.
-- waved: keys of what is missing that were waved away, JSON. day: a date without a time.
create table outing (
    id integer primary key,
    name text not null,
    made_at text not null,
    place text not null default '',
    day text,
    light text not null default '',
    brief_id integer references brief (id),
    setup_id integer references setup (id),
    waved text not null default '[]',
    archived_at text
) strict;

-- spec: the shot as it is planned, JSON. position: on screen, null once it was taken out.
-- state: open, got or impossible. got: how many takes of it were got. changed_at: when its state was.
create table outing_shot (
    id integer primary key,
    outing_id integer not null references outing (id),
    position integer,
    spec text not null,
    state text not null default 'open',
    got integer not null default 0,
    note text not null default '',
    changed_at text
) strict;

create index outing_shots on outing_shot (outing_id, position);

-- Which takes meet which shots. how: slate, clock, order, motion or hand.
create table shot_take (
    take_id integer primary key references take (id),
    shot_id integer not null references outing_shot (id),
    how text not null
) strict;

create index shot_takes on shot_take (shot_id);
