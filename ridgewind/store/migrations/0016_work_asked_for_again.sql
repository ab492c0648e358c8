-- again: the work was asked for anew while it ran. told_at: when its process last gave a sign of life.
alter table job add column again integer not null default 0;
alter table job add column told_at text;
