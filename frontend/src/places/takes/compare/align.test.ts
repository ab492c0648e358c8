import { describe, expect, it } from "vitest";
import type { Side } from "../../../api/compare";
import { commonTime, nextOpen, ridgesOf, zeroOf } from "./align";

const side = (id: number, seconds: number, move_s: number | null, choice: null | "keep" = null) =>
  ({
    take: { id, choice, target: 4 },
    move_s,
    trace: {
      t_s: [0, seconds / 2, seconds],
      gust: [2, null, 3],
      shares: [
        [0.2, 0.2, 0.2],
        [0.2, 0.2, 0.2],
        [0.2, 0.2, 0.2],
        [0.2, 0.2, 0.2],
        [0.2, 0.2, 0.2],
      ],
      trusted: [true, false, true],
    },
  }) as unknown as Side;

describe("commonTime", () => {
  it("lets takes begin together, or their moves", () => {
    const sides = [side(1, 6, 2), side(2, 8, 1)];
    expect(commonTime(sides, "start", 100).domain()).toEqual([-0, 8]);
    expect(commonTime(sides, "move", 100).domain()).toEqual([-2, 7]);
  });
  it("falls back to the start where a take holds no move", () => {
    expect(zeroOf(side(1, 6, null), "move")).toBe(0);
  });
});

describe("ridgesOf", () => {
  it("leaves a gap where nothing could be trusted", () => {
    const [far] = ridgesOf(side(1, 6, null), 0, commonTime([side(1, 6, null)], "start", 60), 40);
    expect(far?.path.match(/M/g)?.length).toBe(2);
  });
});

describe("nextOpen", () => {
  it("goes to the next take that is not settled, round the end", () => {
    const sides = [side(1, 1, null), side(2, 1, null, "keep"), side(3, 1, null)];
    expect(nextOpen(sides, 0)).toBe(2);
    expect(nextOpen(sides, 2)).toBe(0);
    expect(nextOpen([side(1, 1, null, "keep"), side(2, 1, null, "keep")], 0)).toBe(1);
  });
});
