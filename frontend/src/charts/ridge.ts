import { scaleLinear, type ScaleLinear } from "d3-scale";
import { area, line } from "d3-shape";
import type { TraceColumns } from "../api/client";
import { BANDS } from "./bands";

export const MARGIN = { left: 72, right: 72, top: 24, bottom: 30 };
export const NARROW_MARGIN = { left: 28, right: 16, top: 24, bottom: 30 };
const LEAST_TOP_GUST = 5;
const BREAK_S = 1.5;
/** A trace that begins later is that of a part of its film. */
const HEAD_S = 1;

export type Scales = { x: ScaleLinear<number, number>; y: ScaleLinear<number, number> };

/** Scales for a trace: time across, gust up, with the target always inside. */
export function scalesFor(
  trace: TraceColumns,
  target: number,
  size: { width: number; height: number; margin: typeof MARGIN },
): Scales {
  const { width, height, margin } = size;
  const last = trace.t_s.at(-1) ?? 1;
  const first = trace.t_s[0] ?? 0;
  const begins = first < HEAD_S ? 0 : first;
  const most = trace.gust.reduce<number>((high, value) => Math.max(high, value ?? 0), 0);
  const top = Math.min(10, Math.max(LEAST_TOP_GUST, most + 0.8, target + 1.2));
  return {
    x: scaleLinear(
      [begins, Math.max(last, begins + 0.1)],
      [margin.left, Math.max(width - margin.right, margin.left + 1)],
    ),
    y: scaleLinear([0, top], [height - margin.bottom, margin.top]),
  };
}

export type Layer = { name: string; colour: string; path: string };
export type Ridges = { layers: Layer[]; skyline: string; under: string };

/**
 * Ridges from far to near. The height of the skyline is gust(t); a band takes its share of it,
 * slow bands above and behind, fast ones below and in front.
 */
export function ridges(trace: TraceColumns, { x, y }: Scales): Ridges {
  const index = trace.t_s.map((_, i) => i);
  const at = (i: number) => x(trace.t_s[i] ?? 0);
  const known = (i: number) => trace.gust[i] !== null;
  const layers = BANDS.map((band, from) => {
    const height = (i: number) => {
      let part = 0;
      for (let k = from; k < BANDS.length; k++) part += trace.shares[k]?.[i] ?? 0;
      return y((trace.gust[i] ?? 0) * part);
    };
    const shape = area<number>().defined(known).x(at).y0(y(0)).y1(height);
    return { name: band.name, colour: band.colour, path: shape(index) ?? "" };
  });
  const top = (i: number) => y(trace.gust[i] ?? 0);
  return {
    layers,
    skyline: line<number>().defined(known).x(at).y(top)(index) ?? "",
    under: area<number>().defined(known).x(at).y0(y(0)).y1(top)(index) ?? "",
  };
}

/** Stretches [from, to] in seconds that are not to be trusted. */
export function weakStretches(trace: TraceColumns): [number, number][] {
  const found: [number, number][] = [];
  trace.t_s.forEach((t, i) => {
    if (trace.trusted[i]) return;
    const last = found.at(-1);
    if (last && t - last[1] < BREAK_S * step(trace)) last[1] = t;
    else found.push([t, t]);
  });
  const half = step(trace) / 2;
  return found.map(([from, to]) => [Math.max(0, from - half), to + half]);
}

function step(trace: TraceColumns): number {
  const [first, last] = [trace.t_s[0] ?? 0, trace.t_s.at(-1) ?? 0];
  return (last - first) / Math.max(1, trace.t_s.length - 1);
}

/** Gust at a time, from the nearest sample. */
export function gustAt(trace: TraceColumns, t: number): number | null {
  const index = nearest(trace.t_s, t);
  return index < 0 ? null : (trace.gust[index] ?? null);
}

/** Index of the sample nearest to t in growing times, -1 where there is none. */
export function nearest(times: readonly number[], t: number): number {
  if (times.length === 0) return -1;
  let low = 0;
  let high = times.length - 1;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if ((times[middle] ?? 0) <= t) low = middle;
    else high = middle;
  }
  return Math.abs((times[low] ?? 0) - t) <= Math.abs((times[high] ?? 0) - t) ? low : high;
}
