import type { Piece } from "../../api/joined";

export type Knot = Piece["ramp"][number];
export const SPEEDS = { least: 0.05, most: 4 };

/** Ramps that are asked for most; the moments can be moved afterwards. */
export const RAMPS = {
  none: "One speed",
  slowing: "Slowing",
  quickening: "Quickening",
  dwelling: "Slow middle",
} as const;
export type RampKind = keyof typeof RAMPS;

const QUICK = 2;
const SLOW = 0.5;

/** Knots of a ramp over a piece. slowest: at which every frame filmed is still shown once. */
export function rampOf(kind: RampKind, piece: Piece, slowest: number): Knot[] {
  const slow = Math.min(1, slowest > 0.9 ? SLOW : Math.max(0.1, slowest));
  // What is seen first of a piece that runs backwards is the end of its film.
  const [early, late] = (kind === "slowing") === piece.backwards ? [slow, QUICK] : [QUICK, slow];
  const at = (share: number) => rounded(piece.in_s + share * (piece.out_s - piece.in_s));
  const knots = (...told: [number, number][]) =>
    told.map(([share, speed]) => ({ at_s: at(share), speed: rounded(speed) }));
  if (kind === "slowing" || kind === "quickening") return knots([0.35, early], [0.65, late]);
  if (kind === "dwelling") return knots([0.15, 1], [0.4, slow], [0.6, slow], [0.85, 1]);
  return [];
}

/** Which of the usual ramps a piece's is like, by how its speeds go. */
export function kindOf({ ramp, backwards }: Piece): RampKind | "own" {
  if (ramp.length === 0) return "none";
  const [first, last] = [ramp[0], ramp[ramp.length - 1]];
  if (!first || !last) return "none";
  if (ramp.length === 2) {
    return first.speed > last.speed !== backwards ? "slowing" : "quickening";
  }
  return ramp.length === 4 && first.speed === last.speed ? "dwelling" : "own";
}

/** Share of full speed at a moment of the film: the slowness goes along a smooth step. */
export function speedAt(ramp: readonly Knot[], at_s: number): number {
  const next = ramp.findIndex((knot) => knot.at_s > at_s);
  const before = next === -1 ? ramp[ramp.length - 1] : ramp[next - 1];
  const after = next === -1 ? undefined : ramp[next];
  if (!before) return after?.speed ?? 1;
  if (!after) return before.speed;
  const share = (at_s - before.at_s) / (after.at_s - before.at_s);
  const step = share * share * (3 - 2 * share);
  return 1 / (1 / before.speed + (1 / after.speed - 1 / before.speed) * step);
}

/** On screen, s: between knots half the sum of both ends' slowness, exactly. */
export function secondsOf(piece: Piece): number {
  const { in_s, out_s, ramp } = piece;
  if (ramp.length === 0) return (out_s - in_s) / piece.speed;
  const edges = [in_s, ...ramp.map((knot) => knot.at_s).filter((at) => at > in_s && at < out_s)];
  const steps = [...edges, out_s];
  let seconds = 0;
  for (let k = 1; k < steps.length; k++) {
    seconds += between(ramp, steps[k - 1] ?? in_s, steps[k] ?? out_s);
  }
  return seconds;
}

/** Between two moments without a knot in between: Simpson's rule is exact for a cubic. */
function between(ramp: readonly Knot[], from_s: number, to_s: number): number {
  const slow = (at_s: number) => 1 / speedAt(ramp, at_s);
  return ((to_s - from_s) / 6) * (slow(from_s) + 4 * slow((from_s + to_s) / 2) + slow(to_s));
}

/** The ramp with a knot put elsewhere, between its neighbours. */
export function withKnot(ramp: readonly Knot[], at: number, to: Knot): Knot[] {
  const apart = 0.05;
  const low = at > 0 ? (ramp[at - 1]?.at_s ?? 0) + apart : 0;
  const high = at + 1 < ramp.length ? (ramp[at + 1]?.at_s ?? 1e6) - apart : 1e6;
  const knot = {
    at_s: rounded(Math.max(low, Math.min(high, to.at_s))),
    speed: rounded(Math.max(SPEEDS.least, Math.min(SPEEDS.most, to.speed))),
  };
  return ramp.map((one, place) => (place === at ? knot : one));
}

const rounded = (value: number) => Math.round(1000 * value) / 1000;
