-- Sequences rendered small, to be seen as one film. pieces: what was rendered, JSON; gusts: what each
-- piece of it measures as, JSON, null where it cannot be told.
create table sequence_film (
    id integer primary key,
    outing_id integer not null references outing (id),
    pieces text not null,
    asked_at text not null,
    gusts text,
    size_bytes integer
) strict;

create index sequence_films on sequence_film (outing_id);

create table job_anew (
    id integer primary key,
    kind text not null check (kind in ('measure', 'render', 'copy', 'film', 'assemble')),
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
