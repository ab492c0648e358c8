-- What a film's encoding does to a measurement: lines that belong to two moments, and how few
-- bits its pictures were given.
alter table clip add column interlaced integer;
alter table clip add column bits_per_pixel real;
