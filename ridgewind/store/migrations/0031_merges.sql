-- Libraries that were brought into this one. record: what came and what was replaced, JSON, so that
-- it can be undone. source: name of the archive.
create table merge (
    id integer primary key,
    made_at text not null,
    source text not null,
    record text not null
) strict;
