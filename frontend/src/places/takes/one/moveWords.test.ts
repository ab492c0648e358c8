import { describe, expect, it } from "vitest";
import { joinWords, moveFacts, moveWords } from "./moveWords";

const MOVE = {
  kind: "pan" as const,
  direction: "right" as const,
  start_s: 1,
  end_s: 5.2,
  extent: 31.4,
  extent_deg: 18.5,
  evenness: 0.93,
  reversals: 0,
  cross_pct: 0.6,
  dip_pct: 0.4,
  ease_in_s: 0.5,
  ease_out_s: 0.6,
  line: [
    [0, 0],
    [31, 0],
  ],
};

describe("moves in words", () => {
  it("says what it was, how far and how long", () => {
    expect(moveWords(MOVE)).toBe(
      "Pan or slide right, 31 % of the long side, 19° as a turn, in 4.2 s.",
    );
    expect(
      moveWords({ ...MOVE, kind: "push", direction: "out", extent: -20, extent_deg: null }),
    ).toBe("Push out, the picture shrinks by 20 %, in 4.2 s.");
    expect(moveWords({ ...MOVE, kind: "roll", direction: "clockwise" })).toContain(
      "Roll clockwise, 19°",
    );
  });
  it("speaks of a dip only where it pushes", () => {
    expect(moveFacts(MOVE).map(([label]) => label)).not.toContain("Dip");
    expect(moveFacts({ ...MOVE, kind: "push" }).at(-1)).toEqual(["Dip", "0.4 %"]);
  });
  it("says how a shot can be joined", () => {
    expect(joinWords({ speed_pct_s: 0.3, direction: null })).toBe("still");
    expect(joinWords({ speed_pct_s: 6.4, direction: "left" })).toBe("moving left at 6 %/s");
  });
});
