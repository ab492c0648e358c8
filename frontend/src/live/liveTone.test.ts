import { expect, test } from "vitest";
import { toneOf } from "./liveTone";

test("it is silent while it is calm or cannot be told", () => {
  for (const over of [null, -3, 0]) expect(toneOf(over).gain).toBe(0);
});

test("it rises and grows with what is over the target, up to a bound", () => {
  const heard = [0.1, 0.5, 1, 2, 4, 8, 20].map(toneOf);
  for (let k = 1; k < heard.length; k++) {
    expect(heard[k]?.hz).toBeGreaterThanOrEqual(heard[k - 1]?.hz ?? 0);
    expect(heard[k]?.gain).toBeGreaterThanOrEqual(heard[k - 1]?.gain ?? 0);
  }
  expect(heard.at(-1)).toEqual({ hz: 220 * 2 ** 2.5, gain: 0.4 });
});

test("two gusts over are an octave above just over", () => {
  expect(toneOf(2.1).hz / toneOf(0.1).hz).toBeCloseTo(2);
});
