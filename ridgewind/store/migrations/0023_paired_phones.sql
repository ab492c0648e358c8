-- Phones that were let in over the local network. key_hash: SHA-256 of the long random key that each
-- keeps in a cookie; the key itself is kept nowhere here.
create table phone (
    id integer primary key,
    name text not null,
    key_hash text not null unique,
    paired_at text not null,
    seen_at text not null
) strict;
