import { expect, test } from "vitest";
import type { DrillTrial, TrialSide, TrialTake } from "../../../api/trials";
import { differenceScale, drawnSpan, ridgeOver, rowsOf, valueScale } from "./layout";
import { chance, leftWords, pWords, signed, verdictOf } from "./words";

const side = (part: Partial<TrialSide>): TrialSide => ({
  key: "firm", name: "Firm", control: false, takes: 6, best: 0.5, difference: -0.7, low: -0.9,
  high: -0.5, p: 0.01, more_takes: 0, hint: false, ...part,
}); // prettier-ignore
const take = (part: Partial<TrialTake>): TrialTake => ({
  take_id: 1, name: "T", session_id: 1, session: "S", variation: "firm", place: 1,
  filmed_at: null, value: 4, gust: 4, felt: null, why_out: "", chosen: false, ...part,
}); // prettier-ignore
const trial = (takes: TrialTake[], sides: TrialSide[]) => ({ takes, sides }) as DrillTrial;

test("rows are variations, each session apart, and only takes that count make the ridge", () => {
  const found = rowsOf(
    trial(
      [
        take({ session_id: 2 }),
        take({ session_id: 1, value: 5 }),
        take({ session_id: 2, value: 9, why_out: "rejected" }),
        take({ session_id: 2, value: null, why_out: "not measured" }),
      ],
      [side({ key: "slack", control: true }), side({})],
    ),
  );
  expect(found.map((row) => row.side.key)).toEqual(["firm"]);
  expect(found[0]?.lines.map((line) => line.takes.length)).toEqual([2, 1]);
  expect(found[0]?.values).toEqual([4, 5]);
});

test("every value is on the scale, and none at its edge", () => {
  const x = valueScale(trial([take({ value: 2 }), take({ value: 6 })], []), 0, 100);
  expect(x(2)).toBeGreaterThan(0);
  expect(x(6)).toBeLessThan(100);
});

test("a hopeless interval is cut, and says that it goes on", () => {
  const x = differenceScale([side({ difference: -0.25, low: -3.7, high: 3.2 })], 0, 300);
  expect(x(0)).toBe(150);
  expect(drawnSpan(-3.7, 3.2, x)).toMatchObject({ openLeft: true, openRight: true });
  const narrow = differenceScale([side({})], 0, 300);
  expect(drawnSpan(-0.9, -0.5, narrow)).toMatchObject({ openLeft: false, openRight: false });
});

test("two takes make no ridge", () => {
  const x = valueScale(trial([take({ value: 2 }), take({ value: 6 })], []), 0, 100);
  expect(ridgeOver([2, 6], x, 20, 15)).toBe("");
  expect(ridgeOver([2, 3, 6], x, 20, 15)).toMatch(/^M/);
});

test.each([
  [side({}), "Steadier than the control."],
  [side({ low: 0.1, high: 0.9 }), "Rougher than the control."],
  [side({ low: -0.3, high: 0.4 }), "Level with the control, to within half a gust."],
  [side({ low: -0.9, high: 0.4 }), "Not told apart yet."],
  [
    side({ low: -3.7, high: 3.2, hint: true, takes: 2 }),
    "A hint, of 2 takes: three a side are the least to go by.",
  ],
  [side({ low: null, high: null }), "A hint: one more session shows how far takes differ."],
  [side({ difference: null, takes: 0 }), "No take of it counts yet."],
])("a difference is told as no more than it is", (one, words) => {
  expect(verdictOf(one)).toBe(words);
});

test("figures are told as they are read", () => {
  expect([signed(-0.7), signed(0.004), signed(0.126)]).toEqual(["−0.70", "0.00", "+0.13"]);
  expect([chance(0.999), chance(0.42), chance(0.001)]).toEqual([
    "over 99\u00a0%",
    "42\u00a0%",
    "under 1\u00a0%",
  ]);
  expect([pWords(0.0001), pWords(0.0093), pWords(0.52)]).toEqual([
    "p under 0.001",
    "p 0.009",
    "p 0.52",
  ]);
  expect(leftWords(side({ more_takes: 0 }), false)).toBe("");
  expect(verdictOf(side({ low: -0.3, high: 0.4 }), false)).toBe("Not told apart yet.");
  expect(leftWords(side({ more_takes: 6 }))).toBe("about 6 more takes a side until it is settled");
});
