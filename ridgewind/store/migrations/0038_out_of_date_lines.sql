-- How many lines are out of date is asked for at every look, and nearly always it is none.
create index summary_out_of_date on summary (take_id) where stale > 0;
-- What is left of a long take by a polish is read at fewer moments: judged anew.
update summary set stale = stale + 1;
