import { scaleLinear, type ScaleLinear } from "d3-scale";
import { area, curveBasis, line } from "d3-shape";
import type { Season, Week } from "../../../api/progress";

export type X = ScaleLinear<number, number>;

export const ROW_PX = 46;
export const PEAK_PX = 96;
const ROOM = 0.5;
/** How wide a take is smeared, in gust: about what takes of a session differ by. */
const SMEAR = 0.2;
const POINTS = 120;
const RIDGES = 5;

/** Weeks with anything in them, the newest last; a gap between two is told by their dates. */
export const filledWeeks = (season: Season) => season.weeks.filter((week) => week.values.length);

/** Around all values, and the mark where there is one. */
export function valueScale(
  weeks: readonly Week[],
  mark: number | null,
  from: number,
  to: number,
): X {
  const all = [...weeks.flatMap((week) => week.values), ...(mark === null ? [] : [mark])];
  const [low, high] = all.length ? [Math.min(...all), Math.max(...all)] : [0, 10];
  return scaleLinear([low - ROOM, high + ROOM], [from, Math.max(to, from + 1)]);
}

export type Height = { at: number; share: number };

/** How densely a week's takes lie along the scale, each smeared to a small hill of the same size. */
export function densityOf(values: readonly number[], x: X): Height[] {
  const [low = 0, high = 1] = x.domain();
  return Array.from({ length: POINTS + 1 }, (_, k) => {
    const at = low + ((high - low) * k) / POINTS;
    const hills = values.map((value) => Math.exp(-0.5 * ((at - value) / SMEAR) ** 2));
    return { at, share: hills.reduce((sum, hill) => sum + hill, 0) / Math.max(1, values.length) };
  });
}

/** A week as a ridge that stands on its foot. */
export function ridgePath(heights: readonly Height[], x: X, foot: number): string {
  return (
    area<Height>()
      .x((one) => x(one.at))
      .y0(foot)
      .y1((one) => foot - PEAK_PX * one.share)
      .curve(curveBasis)([...heights]) ?? ""
  );
}

export function ridgeLine(heights: readonly Height[], x: X, foot: number): string {
  return (
    line<Height>()
      .x((one) => x(one.at))
      .y((one) => foot - PEAK_PX * one.share)
      .curve(curveBasis)([...heights]) ?? ""
  );
}

/** The older, the paler: as distance looks. */
export const ridgeColour = (index: number, count: number) =>
  `var(--ridge-${count < 2 ? RIDGES : 1 + Math.round(((RIDGES - 1) * index) / (count - 1))})`;

export function middleOf(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const half = Math.floor(sorted.length / 2);
  const upper = sorted[half] ?? 0;
  return sorted.length % 2 ? upper : ((sorted[half - 1] ?? upper) + upper) / 2;
}
