-- A film may hold several takes, each begun by its slate: the take now knows which part of the
-- film it is (film_from_s, film_to_s, null for all of it) and what its slate said. A table cannot
-- lose a unique column in place, so it is made anew.
create table take_anew (
    id integer primary key,
    clip_id integer not null references clip (id),
    name text not null,
    imported_at text not null,
    deleted_at text,
    brief_id integer references brief (id),
    setup_id integer references setup (id),
    own_focal_eq_mm real,
    film_from_s real,
    film_to_s real,
    slate_session integer,
    slate_take integer,
    slate_until_s real,
    from_s real,
    to_s real
) strict;

insert into take_anew
select take.id, clip_id, name, imported_at, deleted_at, brief_id, setup_id, own_focal_eq_mm,
       null, null, clip.slate_session, clip.slate_take, clip.slate_until_s, from_s, to_s
  from take join clip on clip.id = take.clip_id;

drop table take;
alter table take_anew rename to take;

create index take_shown on take (deleted_at, imported_at);
create index take_clip on take (clip_id);
create index take_brief on take (brief_id);
create index take_setup on take (setup_id);

alter table clip drop column slate_session;
alter table clip drop column slate_take;
alter table clip drop column slate_until_s;
