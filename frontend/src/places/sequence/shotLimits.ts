import type { Limits } from "../../api/limits";
import type { PlannedShot } from "../../api/outings";
import * as format from "../../formats";
import { DRILL_OF_MOVE } from "./words";

/**
 * How far a shot's move may go without a hurry, in a sentence; nothing for one that does not cross the
 * picture. A turn in degrees at this lens; a travel by the distance to
 * the subject.
 */
export function travelWords(
  move: PlannedShot["move"],
  unhurried_pct: number | null,
  focal_eq_mm: number | null,
): string | null {
  if (unhurried_pct === null) return null;
  const far = `Unhurried it crosses ${Math.round(unhurried_pct)} % of the picture at most`;
  if (focal_eq_mm === null) return `${far}.`;
  const each = (unhurried_pct / 100) * (LONG_SIDE_MM / focal_eq_mm);
  const lens = format.millimetres(Math.round(focal_eq_mm));
  if (move === "pan" || move === "tilt") {
    return `${far}: ${Math.round((each * 180) / Math.PI)}° at ${lens}.`;
  }
  return `${far}: ${Math.round(100 * each)} % of the distance to the subject at ${lens}.`;
}

/** Of the picture that equivalent focal lengths refer to. */
const LONG_SIDE_MM = 36;

/**
 * What of a shot is beyond what the shooter's takes bear, in sentences: the hold by any technique, the
 * lens by the move's own drill. Ways of too few takes say nothing.
 */
export function shotLimits(shot: PlannedShot, limits: Limits): string[] {
  const known = limits.techniques.filter((one) => !one.hint);
  const told: string[] = [];
  const filmed_s = shot.seconds * shot.playback;
  const holds = known.flatMap((one) => (one.hold ? [{ one, seconds: one.hold.eighty }] : []));
  // Where a way is still held by most at its end, how long it bears is not known.
  if (shot.move === "still" && holds.length > 0 && holds.every(({ seconds }) => seconds !== null)) {
    const best = holds.reduce((a, b) => ((b.seconds ?? 0) > (a.seconds ?? 0) ? b : a));
    if (filmed_s > (best.seconds ?? 0)) {
      told.push(
        `Longer than you hold: four takes in five of ${best.one.name.toLowerCase()} last ${format.seconds(best.seconds)}.`,
      );
    }
  }
  const lens = limits.focal_eq_mm;
  const ways = known.filter((one) => one.drill_key === DRILL_OF_MOVE[shot.move]);
  const longest = Math.max(...ways.map((one) => one.longest_mm));
  if (lens !== null && ways.length > 0 && longest < lens) {
    told.push(
      `${format.millimetres(Math.round(lens))} is longer than you hold for such a move: ${format.longestLens(longest)}.`,
    );
  }
  return told;
}
