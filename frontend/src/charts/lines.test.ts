import { describe, expect, it } from "vitest";
import { linesIn, spanOf } from "./lines";

describe("lines", () => {
  const one = { t: [0, 1, 2], values: [0, 2, -2] };
  it("are drawn to one scale, nought in the middle", () => {
    expect(linesIn([one, { t: [0, 2], values: [1, 1] }], [0, 2], 100, 21)).toEqual([
      "M0,10.5L50,1L100,20",
      "M0,5.75L100,5.75",
    ]);
  });
  it("keep to the span", () => {
    expect(linesIn([one], [0.5, 1.5], 100, 21)).toEqual(["M50,1Z"]);
  });
  it("span from the first to the last", () => {
    expect(spanOf([one, { t: [-1, 1.5], values: [0, 0] }])).toEqual([-1, 2]);
    expect(spanOf([{ t: [], values: [] }])).toEqual([0, 1]);
  });
});
