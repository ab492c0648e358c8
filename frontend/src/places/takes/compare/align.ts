import { scaleLinear, type ScaleLinear } from "d3-scale";
import { area } from "d3-shape";
import type { Side } from "../../../api/compare";
import { BANDS } from "../../../charts/bands";

export type Alignment = "start" | "move";
const TOP_GUST = 9;

/** When each take begins on the common time line: at its start, or at its move where it has one. */
export function zeroOf(side: Side, alignment: Alignment): number {
  const first = side.trace?.t_s[0] ?? 0;
  return alignment === "move" && side.move_s !== null ? side.move_s : first;
}

/** One time line for all takes, s before and after their common moment. */
export function commonTime(sides: Side[], alignment: Alignment, width: number) {
  const before = sides.map((side) => zeroOf(side, alignment) - (side.trace?.t_s[0] ?? 0));
  const after = sides.map((side) => (side.trace?.t_s.at(-1) ?? 1) - zeroOf(side, alignment));
  return scaleLinear([-Math.max(0, ...before), Math.max(1, ...after)], [0, width]);
}

/** A take's ridges on the common time line; far bands first. */
export function ridgesOf(
  side: Side,
  zero: number,
  x: ScaleLinear<number, number>,
  height: number,
): { name: string; colour: string; path: string }[] {
  const { trace } = side;
  if (!trace) return [];
  const y = scaleLinear([0, TOP_GUST], [height, 0]).clamp(true);
  const indices = trace.t_s.map((_, i) => i);
  return BANDS.map((band, from) => {
    const reach = (i: number) =>
      (trace.gust[i] ?? 0) *
      trace.shares.slice(from).reduce((sum, shares) => sum + (shares[i] ?? 0), 0);
    const shape = area<number>()
      .defined((i) => trace.gust[i] != null)
      .x((i) => x((trace.t_s[i] ?? 0) - zero))
      .y0(height)
      .y1((i) => y(reach(i)));
    return { name: band.name, colour: band.colour, path: shape(indices) ?? "" };
  });
}

export const targetY = (target: number, height: number) =>
  scaleLinear([0, TOP_GUST], [height, 0]).clamp(true)(target);

/** The next take without a choice after one, else the one after it. */
export function nextOpen(sides: Side[], from: number): number {
  for (let step = 1; step < sides.length; step++) {
    const at = (from + step) % sides.length;
    if (sides[at]?.take.choice === null) return at;
  }
  return Math.min(from + 1, sides.length - 1);
}
