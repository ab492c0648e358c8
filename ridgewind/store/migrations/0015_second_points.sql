-- A second point of a marked subject, which tells how it turns and grows; null where there is none.
alter table subject add column second_s real;
alter table subject add column second_x real;
alter table subject add column second_y real;
alter table subject add column second_path blob;
-- What a preview that holds the subject measures of it; null where it does not, or lost it.
alter table render add column subject_gust real;
