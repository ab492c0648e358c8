-- Long work of every kind stands in one table: measuring a clip, rendering a film, copying from a
-- folder. subject_id: of the clip, the render or the folder copy. Rows keep their order.
create table job_anew (
    id integer primary key,
    kind text not null check (kind in ('measure', 'render', 'copy')),
    subject_id integer not null,
    state text not null check (state in ('queued', 'running', 'done', 'failed', 'cancelled')),
    progress real,
    attempts integer not null default 0,
    cancel_requested integer not null default 0,
    error_code text,
    error_what text,
    error_next text,
    unique (kind, subject_id)
) strict;

insert into job_anew (kind, subject_id, state, progress, attempts, cancel_requested,
                      error_code, error_what, error_next)
select 'measure', clip_id, state, progress, attempts, cancel_requested,
       error_code, error_what, error_next
  from job order by clip_id;

insert into job_anew (kind, subject_id, state, progress, attempts, cancel_requested,
                      error_code, error_what, error_next)
select 'render', id, state, progress, attempts, cancel_requested,
       error_code, error_what, error_next
  from render order by id;

drop table job;
alter table job_anew rename to job;
create index job_waiting on job (kind, state);

create table render_anew (
    id integer primary key,
    take_id integer not null references take (id),
    purpose text not null check (purpose in ('preview', 'film')),
    recipe text not null,
    made_at text not null,
    gust real,
    peak_gust real,
    unmeasured text,
    size_bytes integer
) strict;

insert into render_anew
select id, take_id, purpose, recipe, made_at, gust, peak_gust, unmeasured, size_bytes from render;

drop table render;
alter table render_anew rename to render;
create index render_take on render (take_id);

-- Films that are copied from a folder or card, in order, and what became of each.
create table folder_copy (
    id integer primary key,
    root text not null,
    asked_at text not null
) strict;

create table folder_copy_film (
    copy_id integer not null references folder_copy (id),
    position integer not null,
    file text not null,
    take_id integer references take (id),
    duplicate integer,
    fault_what text,
    fault_next text,
    primary key (copy_id, position)
) strict;
