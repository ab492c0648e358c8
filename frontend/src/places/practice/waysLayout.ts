import type { ScaleLinear } from "d3-scale";
import type { SessionTake } from "../../api/practice";
import { around } from "../../charts/around";

export type Told = SessionTake & { gust: number };
/** One way of doing a block's drill: its takes that are measured, and what they read on average. */
export type Way = { key: string; name: string; takes: Told[]; mean: number };

/** Between the middles of two takes that stand side by side. */
const APART_PX = 19;

/** The ways of one block that have a measured take, the steadiest first. */
export function waysOf(
  takes: readonly SessionTake[],
  variations: readonly { key: string; name: string }[],
): Way[] {
  return variations
    .map(({ key, name }) => {
      const told = takes.filter(
        (take): take is Told => take.variation_key === key && take.gust !== null,
      );
      const mean = told.reduce((sum, take) => sum + take.gust, 0) / Math.max(told.length, 1);
      return { key, name, takes: told, mean };
    })
    .filter((way) => way.takes.length > 0)
    .sort((a, b) => a.mean - b.mean);
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
