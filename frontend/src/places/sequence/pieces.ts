import type { CutItem, Joined, Piece, PieceItem } from "../../api/joined";
import { secondsOf } from "./ramp";

export const SHORTEST_S = 0.2;

/** A piece with one of its ends moved by seconds of its film, kept inside the film. */
export function trimmed(item: PieceItem, end: "in" | "out", by_s: number): Piece {
  const { piece, length_s } = item;
  const most = length_s ?? piece.out_s;
  if (end === "in") {
    const in_s = Math.max(0, Math.min(piece.out_s - SHORTEST_S, piece.in_s + by_s));
    return { ...piece, in_s: rounded(in_s) };
  }
  const out_s = Math.max(piece.in_s + SHORTEST_S, Math.min(most, piece.out_s + by_s));
  return { ...piece, out_s: rounded(out_s) };
}

const rounded = (value_s: number) => Math.round(1000 * value_s) / 1000;

/** The whole list with one piece in place of another. */
export const withPiece = (pieces: readonly Piece[], at: number, piece: Piece): Piece[] =>
  pieces.map((one, place) => (place === at ? piece : one));

/** The sequence as it will be with other pieces, until the server has said how they join: so that the
 * next key goes on from what was done, not from what was answered. */
export function withPieces(joined: Joined, pieces: readonly Piece[]): Joined {
  const left = [...joined.pieces];
  const items = pieces.map((piece, at) => {
    const same = (item: PieceItem) =>
      item.piece.shot_id === piece.shot_id && item.piece.take_id === piece.take_id;
    const here = joined.pieces[at];
    const found = here && same(here) && left.includes(here) ? here : left.find(same);
    if (!found) return null;
    left.splice(left.indexOf(found), 1);
    const frames = Math.max(1, Math.floor(secondsOf(piece) * joined.rate_hz + 0.5));
    return { ...found, piece, frames };
  });
  const known = items.filter((item) => item !== null);
  // Something came back that is not on the page: the answer will tell.
  if (known.length < items.length) return joined;
  let start = 0;
  const placed = known.map((item) => {
    const next = { ...item, start };
    start += item.frames;
    return next;
  });
  const cuts = placed
    .slice(1)
    .map((_, at) => joined.cuts[at] ?? { mismatch: null, joined: null, jump: false, beat: null });
  return { ...joined, pieces: placed, cuts, frames: start, proposed: false };
}

const WAYS = [
  ["right", "left"],
  ["up", "down"],
  ["in", "out"],
] as const;
/** Slower than this a picture is still for the eye, percent a second. */
const STILL_PCT_S = 0.8;

/** Where the picture goes at an end, in words. */
export function velocityWords(velocity: readonly number[] | null): string {
  if (!velocity) return "not known";
  const part = velocity.reduce(
    (best, one, at) => (Math.abs(one) > Math.abs(velocity[best] ?? 0) ? at : best),
    0,
  );
  const speed = velocity[part] ?? 0;
  const way = WAYS[part];
  if (Math.abs(speed) < STILL_PCT_S || !way) return "still";
  return `${Math.abs(speed).toFixed(0)} %/s ${way[speed > 0 ? 0 : 1]}`;
}

/** An arrow of a velocity, in a box of -1 to 1: right, and down for a picture's own axes. */
export function velocityArrow(velocity: readonly number[] | null): { x: number; y: number } | null {
  if (!velocity) return null;
  const [pan = 0, tilt = 0, push = 0] = velocity;
  const size = Math.hypot(pan, tilt, push);
  if (size < STILL_PCT_S) return null;
  const length = Math.min(1, 0.35 + size / 20);
  const flat = Math.hypot(pan, tilt);
  if (flat < Math.abs(push)) return { x: 0, y: (push > 0 ? -1 : 1) * length };
  return { x: (pan / flat) * length, y: (-tilt / flat) * length };
}

export const JOINED_WORDS = {
  matches: "matches",
  passes: "passes",
  fights: "fights",
} as const;

/** What is told of a cut, in a sentence. */
export function cutWords(cut: CutItem, before: PieceItem, after: PieceItem): string {
  if (cut.mismatch === null || !cut.joined) return "How this cut joins cannot be told.";
  const ends = `${velocityWords(before.exit)}, then ${velocityWords(after.entry)}`;
  const jump = cut.jump
    ? ` Gust leaps from ${(before.gust ?? 0).toFixed(1)} to ${(after.gust ?? 0).toFixed(1)}: the calm side makes the other look worse.`
    : "";
  return `The motion ${JOINED_WORDS[cut.joined]} (${cut.mismatch.toFixed(2)}): ${ends}.${jump}`;
}
