-- What many takes are compared by, worked out with the line: numbers by name, as JSON, and the share
-- of frames that can be trusted. holds: until when the take lasted at each of a few targets.
-- turning: how fast the hand turned, by frequency and part, 32-bit floats, see core/trials/own_hand.py.
alter table summary add column figures text not null default '{}';
alter table summary add column trusted_share real;
alter table summary add column turning blob;
alter table summary add column holds text not null default '[]';
update summary set stale = stale + 1;

-- Whether a take counts in trials though it is unsure or rejected (1), or does not though it is neither
-- (0); null leaves it to what is known of it.
alter table take add column counts integer check (counts in (0, 1));
