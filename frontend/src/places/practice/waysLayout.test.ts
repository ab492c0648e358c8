import { expect, test } from "vitest";
import type { SessionTake } from "../../api/practice";
import { gustScale, linesOf, waysOf } from "./waysLayout";

const take = (position: number, variation_key: string, gust: number | null) =>
  ({ position, variation_key, gust }) as SessionTake;
const TAKES = [take(0, "in", 3.2), take(1, "out", 2.4), take(2, "in", null), take(3, "out", 2.8)];
const COUNTS = TAKES.map(() => ({ ridge: "", why_out: "" }));
const WAYS = ["in", "out", "never"].map((key) => ({ key, name: key }));

test("ways stand with the steadiest first, and those without a measured take not at all", () => {
  const ways = waysOf(TAKES, WAYS, COUNTS);
  expect(ways.map((way) => way.key)).toEqual(["out", "in"]);
  expect(ways[0]?.mean).toBeCloseTo(2.6);
  expect(ways[1]?.takes.map((one) => one.position)).toEqual([0]);
});

test("a take that counts for nothing stands in the drawing, not in the average", () => {
  const unsure = COUNTS.map((one, k) => (k === 3 ? { ...one, why_out: "unsure" } : one));
  const [out] = waysOf(TAKES, WAYS, unsure);
  expect(out?.takes.map((one) => one.whyOut)).toEqual(["", "unsure"]);
  expect(out?.mean).toBeCloseTo(2.4);
  const none = COUNTS.map((one, k) => (k % 2 ? { ...one, why_out: "rejected" } : one));
  expect(waysOf(TAKES, WAYS, none).map((way) => [way.key, way.mean])).toEqual([
    ["in", 3.2],
    ["out", null],
  ]);
});

test("the gust that a drill asks for stands in the drawing though every take is far from it", () => {
  const x = gustScale(waysOf(TAKES, WAYS, COUNTS), 7, 300);
  expect(x(7)).toBeLessThan(300);
  expect(x(2.4)).toBeGreaterThan(0);
  expect(x(2.4)).toBeLessThan(x(3.2));
});

test("takes that read alike stand on lines of their own", () => {
  expect(linesOf([10, 12, 60, 75, 30])).toEqual([0, 1, 0, 1, 0]);
  expect(linesOf([])).toEqual([]);
});
