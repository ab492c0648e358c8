import { expect, test } from "vitest";
import type { Season, Week } from "../../../api/progress";
import { densityOf, filledWeeks, middleOf, ridgeColour, ridgePath, valueScale } from "./layout";
import { practised, shortTrend, totalWords, trendWords, workWords } from "./words";

const week = (begins: string, values: number[]): Week => ({
  begins, takes: values.length, sessions: 1, minutes: 40, values, take_ids: values.map((_, k) => k),
}); // prettier-ignore
const season: Season = {
  weeks: [week("2026-05-04", [4, 5]), week("2026-05-11", []), week("2026-05-18", [3])],
  drills: [], chosen: null, trend: null, work: [],
}; // prettier-ignore

test("weeks without a take are no ridge, and a ridge peaks where its takes are", () => {
  expect(filledWeeks(season).map((one) => one.begins)).toEqual(["2026-05-04", "2026-05-18"]);
  const x = valueScale(season.weeks, 6, 0, 100);
  expect(x.domain()).toEqual([2.5, 6.5]);
  const heights = densityOf([3], x);
  const top = heights.reduce((a, b) => (b.share > a.share ? b : a));
  expect(top.at).toBeCloseTo(3, 1);
  expect(top.share).toBeLessThanOrEqual(1);
  expect(ridgePath(heights, x, 90)).toMatch(/^M/);
});

test("two takes far apart are two hills of half the height", () => {
  const x = valueScale([week("a", [2, 8])], null, 0, 100);
  expect(Math.max(...densityOf([2, 8], x).map((one) => one.share))).toBeCloseTo(0.5, 1);
});

test("older weeks are paler", () => {
  expect([0, 1, 2].map((k) => ridgeColour(k, 3))).toEqual([
    "var(--ridge-1)",
    "var(--ridge-3)",
    "var(--ridge-5)",
  ]);
  expect(ridgeColour(0, 1)).toBe("var(--ridge-5)");
});

test("the middle of values", () => {
  expect([middleOf([3, 1, 2]), middleOf([1, 2, 3, 5]), middleOf([])]).toEqual([2, 2.5, 0]);
});

test("a trend is told only where its interval is on one side", () => {
  expect(trendWords({ slope: -0.2, low: -0.3, high: -0.1 })).toContain("Getting steadier: −0.20");
  expect(trendWords({ slope: -0.2, low: -0.5, high: 0.1 })).toContain("No trend can be told");
  expect(trendWords(null)).toContain("Too few");
  expect(shortTrend({ slope: 0.2, low: 0.1, high: 0.3 })).toBe("rougher, +0.20 a week");
});

test("work and totals in words", () => {
  const work = { drill_key: "a", drill: "A", over: 1.2, target: 4, weeks: null };
  expect(workWords(work)).toContain("Usually 1.2 over its mark of 4.0");
  expect(workWords({ ...work, weeks: 1.2 })).toContain("about 1 week to go");
  expect(totalWords(season)).toBe("3 takes in 3 sessions, 2.0 h of practice.");
  expect(practised(59)).toBe("59 min");
});
