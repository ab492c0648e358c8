import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";

export type Series = { t: readonly number[]; values: readonly number[] };

/** Lines over one span of time and one span of values, in a box; the second of them from 0 px. */
export function linesIn(
  series: readonly Series[],
  span: readonly [number, number],
  width: number,
  height: number,
): string[] {
  const most = Math.max(1e-9, ...series.flatMap((one) => one.values.map(Math.abs)));
  const x = scaleLinear([...span], [0, width]);
  const y = scaleLinear([-most, most], [height - 1, 1]);
  return series.map((one) => {
    const inside = one.t
      .map((t, i) => [t, one.values[i] ?? 0] as const)
      .filter(([t]) => t >= span[0] && t <= span[1]);
    return (
      line<readonly [number, number]>()
        .x(([t]) => x(t))
        .y(([, value]) => y(value))(inside) ?? ""
    );
  });
}

/** Span of time that holds all of some series. */
export function spanOf(series: readonly Series[]): [number, number] {
  const first = Math.min(...series.map((one) => one.t[0] ?? Infinity));
  const last = Math.max(...series.map((one) => one.t.at(-1) ?? -Infinity));
  return first < last ? [first, last] : [0, 1];
}
