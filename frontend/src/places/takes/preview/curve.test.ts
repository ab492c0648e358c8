import { describe, expect, it } from "vitest";
import type { Strength } from "../../../api/decisions";
import { agreement, CURVE, curvePath, curveScales, edgesApart, stepped } from "./curve";

const point = (corner_hz: number, crop_pct: number, gust: number): Strength => ({
  corner_hz,
  crop_pct,
  gust,
  peak: gust + 0.3,
  passes: gust <= 4,
  within: crop_pct <= 10,
  name: "Light",
  warnings: [],
});
const CURVE_POINTS = [point(3, 0.8, 5.5), point(1.4, 1.5, 4.7), point(0.5, 2.7, 1.1)];

describe("curveScales", () => {
  it("keeps the target and every strength inside", () => {
    const { x, y } = curveScales(CURVE_POINTS, 4, 10);
    for (const one of CURVE_POINTS) {
      expect(x(one.crop_pct)).toBeLessThanOrEqual(CURVE.width - CURVE.right);
      expect(y(one.gust)).toBeGreaterThanOrEqual(CURVE.top);
    }
    expect(y(4)).toBeGreaterThan(CURVE.top);
  });
  it("goes from light and rough to strong and calm", () => {
    const scales = curveScales(CURVE_POINTS, 4, 10);
    const [first, , last] = curvePath(CURVE_POINTS, scales).slice(1).split("L");
    expect(Number(first?.split(",")[0])).toBeLessThan(Number(last?.split(",")[0]));
    expect(Number(first?.split(",")[1])).toBeLessThan(Number(last?.split(",")[1]));
  });
});

describe("stepped", () => {
  it("stops at both ends", () => {
    expect(stepped(CURVE_POINTS, 1.4, 1)).toBe(0.5);
    expect(stepped(CURVE_POINTS, 0.5, 1)).toBe(0.5);
    expect(stepped(CURVE_POINTS, 3, -1)).toBe(3);
    expect(stepped([], null, 1)).toBeNull();
  });
});

describe("agreement", () => {
  it("says when a preview cannot be trusted to be as predicted", () => {
    expect(agreement(3.72, 3.74)).toEqual({ agrees: true, words: "as predicted" });
    expect(agreement(3.74, 3.76)).toEqual({ agrees: true, words: "0.1 from the prediction" });
    expect(agreement(3.7, 3.0)).toEqual({
      agrees: false,
      words: "0.7 less than predicted: go by what you see here",
    });
  });
});

describe("the edges of a preview", () => {
  it("are told only where they move more than its figure", () => {
    expect(edgesApart(3, null)).toBeNull();
    expect(edgesApart(3, 3.4)).toBeNull();
    expect(edgesApart(5, 1)).toBeNull();
    expect(edgesApart(1, 4.26)).toContain("gust 4.3");
  });
});
