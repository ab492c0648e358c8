-- What became film: parts of takes that a time line from the desk uses. timeline: its name. in_s,
-- out_s: of the take's film, from its first frame; seconds: on screen.
create table used_take (
    id integer primary key,
    outing_id integer not null references outing (id),
    take_id integer not null references take (id),
    timeline text not null,
    in_s real not null,
    out_s real not null,
    seconds real not null,
    brought_at text not null
) strict;

create index used_takes on used_take (outing_id);
