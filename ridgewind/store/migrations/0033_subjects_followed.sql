-- Points that are still to be followed, by a worker: one a take. second: another point of what is
-- marked already.
create table subject_ask (
    take_id integer primary key references take (id),
    at_s real not null,
    x real not null,
    y real not null,
    second integer not null check (second in (0, 1))
) strict;

-- Subjects that were let go, the last of each take, so that it can be undone.
create table subject_away (
    take_id integer primary key references take (id),
    marked_s real not null,
    x real not null,
    y real not null,
    path blob not null,
    second_s real,
    second_x real,
    second_y real,
    second_path blob
) strict;

-- Following is long work too. The kinds stand in store/jobs.py alone from now on.
create table job_anew (
    id integer primary key,
    kind text not null,
    subject_id integer not null,
    state text not null check (state in ('queued', 'running', 'done', 'failed', 'cancelled')),
    progress real,
    attempts integer not null default 0,
    cancel_requested integer not null default 0,
    error_code text,
    error_what text,
    error_next text,
    again integer not null default 0,
    told_at text,
    lease text,
    unique (kind, subject_id)
) strict;

insert into job_anew (id, kind, subject_id, state, progress, attempts, cancel_requested,
                      error_code, error_what, error_next, again, told_at, lease)
select id, kind, subject_id, state, progress, attempts, cancel_requested,
       error_code, error_what, error_next, again, told_at, lease
  from job order by id;

drop table job;
alter table job_anew rename to job;
create index job_waiting on job (kind, state);
create index job_lent on job (lease) where lease is not null;
