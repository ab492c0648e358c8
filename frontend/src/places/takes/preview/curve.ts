import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import type { Strength } from "../../../api/decisions";

export const CURVE = { width: 420, height: 168, left: 34, right: 14, top: 12, bottom: 30 };
export const LIGHT_PCT = 4;
export const MEDIUM_PCT = 10;
const LEAST_CROP_PCT = 6;
const LEAST_GUST = 5;
const ROOM = 1.08;

/** Scales of the curve of crop against gust left, with target and budget always inside. */
export function curveScales(strengths: Strength[], target: number, budget: number) {
  const most = Math.max(...strengths.map((one) => one.crop_pct), 0);
  const crop = Math.max(LEAST_CROP_PCT, most * ROOM, Math.min(budget * ROOM, most * 2));
  const high = Math.max(LEAST_GUST, target + 1, ...strengths.map((one) => one.gust));
  return {
    x: scaleLinear([0, crop], [CURVE.left, CURVE.width - CURVE.right]),
    y: scaleLinear([0, Math.min(10, high)], [CURVE.height - CURVE.bottom, CURVE.top]),
  };
}

/** The curve as a path. */
export function curvePath(strengths: Strength[], scales: ReturnType<typeof curveScales>): string {
  const shape = line<Strength>()
    .x((one) => scales.x(one.crop_pct))
    .y((one) => scales.y(one.gust));
  return shape(strengths) ?? "";
}

/** Which strength a step away is, never beyond the ends. */
export function stepped(strengths: Strength[], corner: number | null, by: number): number | null {
  const at = strengths.findIndex((one) => one.corner_hz === corner);
  const next = strengths[Math.max(0, Math.min(strengths.length - 1, (at < 0 ? 0 : at) + by))];
  return next?.corner_hz ?? null;
}

const AGREES = 0.4;

/** In words how far a preview's own figure is from what was predicted, as both are shown. */
export function agreement(predicted: number, measured: number): { agrees: boolean; words: string } {
  const off = measured - predicted;
  const by = Math.abs(Number(measured.toFixed(1)) - Number(predicted.toFixed(1))).toFixed(1);
  if (Math.abs(off) <= AGREES) {
    return { agrees: true, words: by === "0.0" ? "as predicted" : `${by} from the prediction` };
  }
  const way = off > 0 ? "more" : "less";
  return { agrees: false, words: `${by} ${way} than predicted: go by what you see here` };
}

const EDGES_APART = 0.5;

/** What to say where the edges of a preview move more than its figure; null where they do not. */
export function edgesApart(gust: number, edges: number | null): string | null {
  if (edges === null || edges <= gust + EDGES_APART) return null;
  return `Around its edges it moves more, gust ${edges.toFixed(1)}. If that is the background, the figure is of something else: see the points (O).`;
}
