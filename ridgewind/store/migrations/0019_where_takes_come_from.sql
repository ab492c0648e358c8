-- own: filmed by the shooter. simulated: by the stand-in camera in the shooter's hand. example: a film
-- by somebody else, from which a brief was made; it is no take to be judged, and teaches nothing.
alter table take add column origin text not null default 'own'
    check (origin in ('own', 'simulated', 'example'));
