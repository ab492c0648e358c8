import { scaleLinear } from "d3-scale";
import { expect, test } from "vitest";
import type { HoldLine, StrapLine } from "../../../api/limits";
import { apart, crumbling, fallOf, strapPath } from "./layout";

const hold: HoldLine = {
  seconds: [3.2, 4.1], share: [0.75, 0.5], low: [0.4, 0.2], high: [0.9, 0.8], held: 2, held_s: 8,
  eighty: 3.2, eighty_low: 3.2, eighty_high: null, half: 4.1,
}; // prettier-ignore

test("a ledge begins whole, falls where takes were over, and ends where the longest did", () => {
  expect(fallOf(hold, hold.share)).toEqual([
    { s: 0, share: 1 },
    { s: 3.2, share: 0.75 },
    { s: 4.1, share: 0.5 },
    { s: 8, share: 0.5 },
  ]);
  expect(crumbling(hold, scaleLinear([0, 8], [0, 80]), 20, 10)).toMatch(/^M0,10L32,10L32,12.5/);
});

test("takes that all held make a ledge that stays", () => {
  const whole = { ...hold, seconds: [], share: [], low: [], high: [] };
  expect(fallOf(whole, whole.share)).toEqual([
    { s: 0, share: 1 },
    { s: 8, share: 1 },
  ]);
});

test("a strap's curve runs over what was filmed and no further", () => {
  const strap = { a: 5, b: -1, c: 0.2, tensions: [1, 3, 5], gusts: [4, 3.8, 5] } as StrapLine;
  const path = strapPath(strap, scaleLinear([1, 5], [0, 40]), scaleLinear([0, 10], [100, 0]));
  expect(path.startsWith("M0,58")).toBe(true);
  expect(path).toMatch(/L40,50$/);
});

test("points of one value stand side by side", () => {
  expect(apart([2, 2, 2, 3], 6)).toEqual([0, -6, 6, 0]);
});
