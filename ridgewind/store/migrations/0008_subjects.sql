-- A thing that the shooter marked in a take's picture, and where it was followed to.
create table subject (
    take_id integer primary key references take (id),
    marked_s real not null,
    x real not null,
    y real not null,
    path blob not null
) strict;
