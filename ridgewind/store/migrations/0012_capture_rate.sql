-- Slow motion that is stretched in the file itself: frames a second at which it was filmed, as the
-- file says and as the shooter says of a take; null where the film plays as it was filmed.
alter table clip add column file_capture_fps real;
alter table take add column own_capture_fps real;
