import { expect, it } from "vitest";
import { exampleWords, moveKind } from "./bandWords";

it("names a move, a hold, and one that it does not know", () => {
  expect([null, "pan", "push", "orbit"].map(moveKind)).toEqual([
    "held",
    "a pan",
    "a push or pull",
    "orbit",
  ]);
});

it("tells the bands that count, slow to fast, and the move", () => {
  expect(exampleWords({ buzz: 0.1, drift: 0.6, step: 0.004 }, "pan")).toBe(
    "drift 60 %, buzz 10 %, a pan",
  );
  expect(exampleWords({}, null)).toBe("held");
});
