-- As what a sequence was delivered when its film was asked for: another brief makes it out of date.
-- Null for films of before.
alter table sequence_film add column delivered text;
