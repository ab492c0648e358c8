-- What a take's verdict shows of it, and the move that was found, JSON: so that many takes are
-- joined without judging each again. Lines of before are worked out anew as they are asked for.
alter table summary add column verdict text;
update summary set stale = stale + 1;

-- How an outing's sequence is shown. shape: a key of core/sequence/shapes.py, null for as its brief
-- delivers. beats_per_min: of the music that it is cut to, null for none.
alter table outing add column shape text;
alter table outing add column beats_per_min real;

-- whole: at full size, to be kept; else small, to be seen. shape: as it was asked for.
alter table sequence_film add column whole integer not null default 0;
alter table sequence_film add column shape text;
