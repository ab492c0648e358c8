-- What a preview measures by the edges of its picture alone; null where that cannot be told.
alter table render add column edge_gust real;
