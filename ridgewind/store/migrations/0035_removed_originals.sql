-- Originals that were removed for good while the disk that they are on was away.
create table removed_original (
    file text primary key,
    removed_at text not null
) strict;
