import { describe, expect, it } from "vitest";
import type { CutItem, PieceItem } from "../../api/joined";
import { cutWords, trimmed, velocityArrow, velocityWords, withPieces } from "./pieces";

const MIDDLE = { right: 0, down: 0, follows: false };

const item = (parts: Partial<PieceItem> = {}): PieceItem => ({
  piece: {
    take_id: 1,
    shot_id: 1,
    in_s: 1,
    out_s: 4,
    speed: 1,
    backwards: false,
    ramp: [],
    framing: MIDDLE,
  },
  start: 0,
  frames: 72,
  subject: "the mill",
  take: null,
  length_s: 5,
  gust: 2,
  entry: [0, 0, 0],
  exit: [6, 0, 0],
  ridge: "",
  trouble: null,
  notes: [],
  window: [1, 1],
  left: 1,
  marked: false,
  fps: 25,
  ...parts,
});

describe("a piece", () => {
  it("is trimmed inside its film, and never away", () => {
    expect(trimmed(item(), "in", -3).in_s).toBe(0);
    expect(trimmed(item(), "in", 9).in_s).toBe(3.8);
    expect(trimmed(item(), "out", 9).out_s).toBe(5);
    expect(trimmed(item(), "out", -9).out_s).toBe(1.2);
    expect(trimmed(item(), "out", 0.04).out_s).toBe(4.04);
  });
});

describe("a change before its answer", () => {
  const one = item();
  const two = item({ piece: { ...one.piece, take_id: 2, shot_id: 2 }, subject: "the cap" });
  const joined = {
    name: "x",
    rate_hz: 24,
    target: 4,
    frames: 144,
    proposed: true,
    shape: null,
    ratio: 16 / 9,
    delivered: [1920, 1080],
    beats_per_min: null,
    pieces: [one, two],
    cuts: [{ mismatch: 0.5, joined: "passes" as const, jump: false, beat: null }],
  };

  it("is shown in its order, as long as it will be", () => {
    const trimmed = { ...one.piece, out_s: 2 };
    const found = withPieces(joined, [two.piece, trimmed]);
    expect(found.pieces.map((each) => [each.subject, each.start, each.frames])).toEqual([
      ["the cap", 0, 72],
      ["the mill", 72, 24],
    ]);
    expect(found.frames).toBe(96);
    expect(withPieces(joined, [two.piece]).cuts).toEqual([]);
  });

  it("waits for the answer where a piece comes back that is not on the page", () => {
    const other = { ...one.piece, take_id: 9, shot_id: 9 };
    expect(withPieces(joined, [one.piece, other])).toBe(joined);
  });
});

describe("a cut", () => {
  it("tells where the picture goes on either side", () => {
    expect(velocityWords([6.2, 1, 0])).toBe("6 %/s right");
    expect(velocityWords([0.1, -4, 0])).toBe("4 %/s down");
    expect(velocityWords([0, 0, 3])).toBe("3 %/s in");
    expect(velocityWords([0.2, 0, 0])).toBe("still");
    expect(velocityWords(null)).toBe("not known");
    expect(velocityArrow([6, 0, 0])?.x).toBeGreaterThan(0);
    expect(velocityArrow([0, 5, 0])?.y).toBeLessThan(0);
    expect(velocityArrow([0, 0, 0])).toBeNull();
  });
  it("says what it is in one sentence, and a jump of gust in another", () => {
    const cut: CutItem = { mismatch: 1.4, joined: "fights", jump: true, beat: null };
    const told = cutWords(cut, item(), item({ entry: [-5, 0, 0], gust: 4.2 }));
    expect(told).toMatch(/^The motion fights \(1\.40\): 6 %\/s right, then 5 %\/s left\./);
    expect(told).toContain("from 2.0 to 4.2");
    expect(cutWords({ ...cut, mismatch: null }, item(), item())).toContain("cannot be told");
  });
});
