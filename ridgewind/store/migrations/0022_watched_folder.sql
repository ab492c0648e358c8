-- The folder from which films come by themselves, and each of its films that is settled: what was
-- there before, what was taken in, what was refused. A file is known by its path, size and date.
-- looked: whether it was tried to file its take under the running session.
create table watched_folder (
    id integer primary key check (id = 1),
    root text not null,
    since text not null
) strict;

create table watched_film (
    file text not null,
    size_bytes integer not null,
    modified_ns integer not null,
    state text not null check (state in ('before', 'taken', 'refused')),
    take_id integer references take (id),
    looked integer not null default 0,
    fault text,
    settled_at text not null,
    primary key (file, size_bytes, modified_ns)
) strict;
