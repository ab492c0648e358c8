import { expect, test } from "vitest";
import type { HandAnswer, HandTechnique } from "../../../api/hand";
import {
  gustScale,
  handRidge,
  hertzScale,
  lensCurve,
  lensScale,
  turnOf,
  turnScale,
} from "./layout";

const one: HandTechnique = { key: "a/b", name: "B", drill_key: "a", drill: "A", takes: 3, density: [1e-3, 1e-4, 1e-6] }; // prettier-ignore
const answer: HandAnswer = {
  techniques: [one],
  hz: [0.5, 2, 8], chosen: "a/b", takes: 3, filmed_mm: [26],
  here: { gust: 4, low: 3, high: 5 }, error: 0.2,
  focal_mm: [10, 50, 320],
  curve: [{ gust: 2, low: 1, high: 3 }, { gust: 5, low: 4, high: 6 }, { gust: 8, low: 7, high: 9 }],
}; // prettier-ignore

test("a density is told as the turn within a doubling", () => {
  // 1 arc minute squared over a doubling around 1 Hz.
  expect(turnOf(1 / 3600 / Math.LN2, 1)).toBeCloseTo(1, 9);
});

test("a hand is drawn from its foot and stays under the top", () => {
  const [x, y] = [hertzScale(0, 100), turnScale(answer, 80, 0)];
  expect(handRidge(one, answer.hz, x, y)).toMatch(/^M/);
  const tops = one.density.map((density, k) => y(turnOf(density, answer.hz[k] ?? 1)));
  expect(Math.min(...tops)).toBeGreaterThan(0);
});

test("the band lies around the line at every lens", () => {
  const { band, line } = lensCurve(answer, lensScale(answer, 0, 100), gustScale(100, 0));
  expect(line.startsWith("M0,80")).toBe(true);
  expect(band).toContain("0,90");
  expect(band).toContain("0,70");
});
