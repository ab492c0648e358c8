-- made_got: whether the shot was open until this take was filed under it, so that it is open again
-- once no take meets it any more. Nobody knows it of takes that were filed before: their shots stay.
alter table shot_take add column made_got integer not null default 0 check (made_got in (0, 1));
