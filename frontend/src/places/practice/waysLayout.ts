import type { ScaleLinear } from "d3-scale";
import type { SessionTake, TakeOutcome } from "../../api/practice";
import { around } from "../../charts/around";

/** A measured take. whyOut: why it counts for nothing, "" where it does. */
export type Told = SessionTake & { gust: number; whyOut: string };
/** One way of doing a block's drill: its measured takes, and what those that count read on average;
 * null where none does. */
export type Way = { key: string; name: string; takes: Told[]; mean: number | null };

/** Between the middles of two takes that stand side by side. */
const APART_PX = 19;

/** The ways of one block that have a measured take, the steadiest first. */
export function waysOf(
  takes: readonly SessionTake[],
  variations: readonly { key: string; name: string }[],
  outcomes: readonly TakeOutcome[],
): Way[] {
  return variations
    .map(({ key, name }) => {
      const told = takes
        .filter((take) => take.variation_key === key)
        .flatMap(({ gust, ...take }) =>
          gust === null ? [] : { ...take, gust, whyOut: outcomes[take.position]?.why_out ?? "" },
        );
      const counted = told.filter((take) => take.whyOut === "").map((take) => take.gust);
      const sum = counted.reduce((all, gust) => all + gust, 0);
      return { key, name, takes: told, mean: counted.length > 0 ? sum / counted.length : null };
    })
    .filter((way) => way.takes.length > 0)
    .sort((a, b) => (a.mean ?? Infinity) - (b.mean ?? Infinity));
}

/** From the calmest of a block's takes to the roughest, with the gust that its drill asks for. */
export function gustScale(
  ways: readonly Way[],
  target: number,
  width: number,
): ScaleLinear<number, number> {
  const gusts = ways.flatMap((way) => way.takes.map((take) => take.gust));
  return around([...gusts, target], APART_PX / 2, Math.max(width - APART_PX / 2, APART_PX));
}

/** On which line each take stands, so that none hides another: the first with room for it. */
export function linesOf(places: readonly number[]): number[] {
  const ends: number[] = [];
  const lines = places.map(() => 0);
  const inOrder = places.map((x, index) => ({ x, index })).sort((a, b) => a.x - b.x);
  for (const { x, index } of inOrder) {
    const free = ends.findIndex((end) => x - end >= APART_PX);
    const line = free < 0 ? ends.length : free;
    ends[line] = x;
    lines[index] = line;
  }
  return lines;
}
