import { scaleLinear, scaleLog, type ScaleLogarithmic } from "d3-scale";
import { area, curveMonotoneX, line } from "d3-shape";
import type { HandAnswer, HandTechnique, Predicted } from "../../../api/hand";

export type LogX = ScaleLogarithmic<number, number>;

/** Where one kind of shake turns into the next, Hz, with the colour of each. */
export const KINDS = [
  { name: "drift", from: 0.1, to: 0.3, colour: "var(--ridge-1)" },
  { name: "sway", from: 0.3, to: 1.2, colour: "var(--ridge-2)" },
  { name: "step", from: 1.2, to: 4, colour: "var(--ridge-3)" },
  { name: "jitter", from: 4, to: 14, colour: "var(--ridge-4)" },
  { name: "buzz", from: 14, to: 30, colour: "var(--ridge-5)" },
] as const;
const [SLOWEST_HZ, FASTEST_HZ] = [0.2, 30];
const ARC_MINUTES = 60;

/** Arc minutes that a hand turns to and fro within a doubling of frequency, from its density. */
export function turnOf(density: number, hz: number): number {
  return ARC_MINUTES * Math.sqrt(density * hz * Math.LN2);
}

export function hertzScale(from: number, to: number): LogX {
  return scaleLog([SLOWEST_HZ, FASTEST_HZ], [from, Math.max(to, from + 1)]);
}

/** Arc minutes up, from a hundredth to the most of any technique. */
export function turnScale(answer: HandAnswer, foot: number, top: number): LogX {
  const most = Math.max(
    1,
    ...answer.techniques.flatMap((one) => one.density.map((d, k) => turnOf(d, answer.hz[k] ?? 1))),
  );
  return scaleLog([0.02, most * 1.2], [foot, top]).clamp(true);
}

const inside = (hz: readonly number[]) =>
  hz.flatMap((one, k) => (one >= SLOWEST_HZ * 0.95 && one <= FASTEST_HZ * 1.05 ? [k] : []));

/** A hand as a ridge over the frequencies. */
export function handRidge(one: HandTechnique, hz: readonly number[], x: LogX, y: LogX): string {
  const foot = y.range()[0] ?? 0;
  return (
    area<number>()
      .x((k) => x(hz[k] ?? 1))
      .y0(foot)
      .y1((k) => y(Math.max(1e-6, turnOf(one.density[k] ?? 0, hz[k] ?? 1))))
      .curve(curveMonotoneX)(inside(hz)) ?? ""
  );
}

/** Another hand behind it, as a line. */
export function handLine(one: HandTechnique, hz: readonly number[], x: LogX, y: LogX): string {
  return (
    line<number>()
      .x((k) => x(hz[k] ?? 1))
      .y((k) => y(Math.max(1e-6, turnOf(one.density[k] ?? 0, hz[k] ?? 1))))
      .curve(curveMonotoneX)(inside(hz)) ?? ""
  );
}

export function lensScale(answer: HandAnswer, from: number, to: number): LogX {
  return scaleLog(
    [answer.focal_mm[0] ?? 10, answer.focal_mm.at(-1) ?? 320],
    [from, Math.max(to, from + 1)],
  );
}

export const gustScale = (foot: number, top: number) => scaleLinear([0, 10], [foot, top]);

/** The mean take at every lens, and the band in which four in five lie. */
export function lensCurve(answer: HandAnswer, x: LogX, y: (gust: number) => number) {
  const index = answer.focal_mm.map((_, k) => k);
  const at = (k: number) => x(answer.focal_mm[k] ?? 10);
  const part = (name: keyof Predicted) => (k: number) => y(answer.curve[k]?.[name] ?? 0);
  return {
    band: area<number>().x(at).y0(part("low")).y1(part("high"))(index) ?? "",
    line: line<number>().x(at).y(part("gust"))(index) ?? "",
  };
}
