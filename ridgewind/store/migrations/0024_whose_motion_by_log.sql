-- Whose motion a shot shows may be told by a motion log of the camera instead of the shooter.
alter table whose_motion add column by_log integer not null default 0;
