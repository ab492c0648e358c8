-- The shooter's word on which of a shot's motions is the camera's: where its points are in the
-- middle, -1 to 1 of half the picture, and a moment of the shot, seconds of the film.
create table whose_motion (
    clip_id integer not null references clip (id),
    at_s real not null,
    x real not null,
    y real not null,
    primary key (clip_id, at_s)
) strict;
