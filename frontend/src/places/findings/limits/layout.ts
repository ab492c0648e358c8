import { scaleLog, type ScaleLinear, type ScaleLogarithmic } from "d3-scale";
import { area, curveMonotoneX, curveStepAfter, line } from "d3-shape";
import type { HoldLine, StrapLine, Technique } from "../../../api/limits";

export type LogX = ScaleLogarithmic<number, number>;
export type X = ScaleLinear<number, number>;

export const TICKS_MM = [10, 16, 24, 35, 50, 85, 135, 200, 300];

/** Focal lengths of a technique's curve, from the shortest to the longest, evenly in stops. */
export function focalScale(techniques: readonly Technique[], from: number, to: number): LogX {
  const focals = techniques[0]?.curve.focal_mm ?? [10, 320];
  return scaleLog([focals[0] ?? 10, focals.at(-1) ?? 320], [from, Math.max(to, from + 1)]);
}

/** A slope that falls as the lens gets longer: the chance of passing. */
export function chanceSlope(one: Technique, x: LogX, foot: number, height: number): string {
  return (
    area<number>()
      .x((k) => x(one.curve.focal_mm[k] ?? 10))
      .y0(foot)
      .y1((k) => foot - height * (one.curve.chance[k] ?? 0))
      .curve(curveMonotoneX)(one.curve.focal_mm.map((_, k) => k)) ?? ""
  );
}

type Fall = { s: number; share: number };

/** The steps of a survival line, from all takes at nothing to those left at the end. */
export function fallOf(hold: HoldLine, shares: readonly number[]): Fall[] {
  const falls = hold.seconds.map((s, k) => ({ s, share: shares[k] ?? 0 }));
  const last = falls.at(-1)?.share ?? 1;
  return [
    { s: 0, share: 1 },
    ...falls,
    { s: Math.max(hold.held_s, falls.at(-1)?.s ?? 0), share: last },
  ];
}

/** A ledge that crumbles: the share of takes that still hold, over the seconds. */
export function crumbling(hold: HoldLine, x: X, foot: number, height: number): string {
  return (
    area<Fall>()
      .x((one) => x(one.s))
      .y0(foot)
      .y1((one) => foot - height * one.share)
      .curve(curveStepAfter)(fallOf(hold, hold.share)) ?? ""
  );
}

/** The bounds of a survival line. */
export function bound(
  hold: HoldLine,
  shares: readonly number[],
  x: X,
  foot: number,
  height: number,
): string {
  return (
    line<Fall>()
      .x((one) => x(one.s))
      .y((one) => foot - height * one.share)
      .curve(curveStepAfter)(fallOf(hold, shares)) ?? ""
  );
}

const CURVE_POINTS = 40;

/** The parabola of a strap between the least and the most tension that was filmed. */
export function strapPath(strap: StrapLine, x: X, y: X): string {
  const [least, most] = [Math.min(...strap.tensions), Math.max(...strap.tensions)];
  const at = Array.from(
    { length: CURVE_POINTS + 1 },
    (_, k) => least + ((most - least) * k) / CURVE_POINTS,
  );
  return (
    line<number>()
      .x((t) => x(t))
      .y((t) => y(strap.a + strap.b * t + strap.c * t * t))(at) ?? ""
  );
}

/** Points of one value side by side rather than on top of one another. */
export function apart(values: readonly number[], step: number): number[] {
  const seen = new Map<number, number>();
  return values.map((value) => {
    const count = seen.get(value) ?? 0;
    seen.set(value, count + 1);
    return (count % 2 ? -1 : 1) * Math.ceil(count / 2) * step;
  });
}
