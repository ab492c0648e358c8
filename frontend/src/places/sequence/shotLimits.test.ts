import { describe, expect, it } from "vitest";
import type { Limits } from "../../api/limits";
import type { PlannedShot } from "../../api/outings";
import { shotLimits, travelWords } from "./shotLimits";

const shot = {
  subject: "the mill",
  move: "still",
  seconds: 6,
  playback: 1,
} as unknown as PlannedShot;

const limits = (eighty: number | null, longest_mm = 100) =>
  ({
    focal_eq_mm: 50,
    techniques: [
      { drill_key: "hands", name: "Two hands", hint: false, longest_mm, hold: { eighty } },
      { drill_key: "hands", name: "A hint", hint: true, longest_mm: 5, hold: { eighty: 60 } },
    ],
  }) as unknown as Limits;

describe("a shot against the shooter's limits", () => {
  it("is told where it is longer than any way is held", () => {
    expect(shotLimits(shot, limits(4.2))).toEqual([
      "Longer than you hold: four takes in five of two hands last 4.2 s.",
    ]);
    expect(shotLimits({ ...shot, playback: 0.5 }, limits(4.2))).toEqual([]);
    expect(shotLimits(shot, limits(null))).toEqual([]);
    expect(shotLimits({ ...shot, move: "pan" }, limits(4.2))).toEqual([]);
  });
  it("is told where the lens is beyond the move's own drill", () => {
    expect(shotLimits(shot, limits(9, 35))).toEqual([
      "50 mm is longer than you hold for such a move: 35 mm.",
    ]);
    expect(shotLimits({ ...shot, move: "orbit" }, limits(9, 35))).toEqual([]);
  });
});

describe("how far a move may go", () => {
  it("is a turn in degrees, a travel by the distance, and nothing for one that stands", () => {
    expect(travelWords("pan", 50, 36)).toBe(
      "Unhurried it crosses 50 % of the picture at most: 29° at 36 mm.",
    );
    expect(travelWords("slide", 50, 36)).toMatch(
      /: 50 % of the distance to the subject at 36 mm\.$/,
    );
    expect(travelWords("slide", 50, null)).toBe(
      "Unhurried it crosses 50 % of the picture at most.",
    );
    expect(travelWords("still", null, 36)).toBeNull();
  });
});
