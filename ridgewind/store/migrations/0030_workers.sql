-- Other machines that may measure and render for this library. key_hash: SHA-256 of the key that
-- each was given.
create table worker (
    id integer primary key,
    name text not null,
    key_hash text not null unique,
    let_in_at text not null,
    seen_at text
) strict;

-- lease: of work that another machine does, null for this one's own.
alter table job add column lease text;
create index job_lent on job (lease) where lease is not null;
