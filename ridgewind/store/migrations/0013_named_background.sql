-- Where in a film's picture the shooter sees the background: cells of the picture, as JSON; the
-- film is measured by these alone.
create table named_background (
    clip_id integer primary key references clip (id),
    cells text not null
) strict;
