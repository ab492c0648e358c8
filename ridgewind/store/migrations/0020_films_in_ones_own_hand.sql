-- Filming a made scene in the shooter's hand is long work too: its kind joins the others, and what was
-- asked for stands beside it. technique: drill/variation. take_id: once it is filmed. Rows keep their
-- order.
create table job_anew (
    id integer primary key,
    kind text not null check (kind in ('measure', 'render', 'copy', 'film')),
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
    unique (kind, subject_id)
) strict;

insert into job_anew (id, kind, subject_id, state, progress, attempts, cancel_requested,
                      error_code, error_what, error_next, again, told_at)
select id, kind, subject_id, state, progress, attempts, cancel_requested,
       error_code, error_what, error_next, again, told_at
  from job order by id;

drop table job;
alter table job_anew rename to job;
create index job_waiting on job (kind, state);

create table hand_film (
    id integer primary key,
    technique text not null,
    name text not null,
    focal_eq_mm real not null,
    fps real not null,
    predicted text not null,
    asked_at text not null,
    take_id integer references take (id)
) strict;
