import { scaleLinear } from "d3-scale";
import { expect, test } from "vitest";
import { tickWords } from "./tickWords";

test.each([
  [
    [1.8, 2, 2.2],
    ["1.8", "2.0", "2.2"],
  ],
  [
    [0, 5, 10],
    ["0", "5", "10"],
  ],
  [
    [0.05, 0.1, 0.15000000000000002],
    ["0.05", "0.10", "0.15"],
  ],
  [
    [-1, -0.5, 0],
    ["−1.0", "−0.5", "0.0"],
  ],
  [[], []],
])("%j reads %j", (ticks, words) => {
  expect(tickWords(ticks)).toEqual(words);
});

test("figures of an axis are told apart, whatever it spans", () => {
  for (let power = -4; power <= 4; power += 0.37) {
    const ticks = scaleLinear([0, 10 ** power], [0, 1]).ticks(7);
    expect(new Set(tickWords(ticks)).size).toBe(ticks.length);
  }
});
