-- The pieces of an outing's sequence, JSON; null for as its shots propose them.
alter table outing add column pieces text;
