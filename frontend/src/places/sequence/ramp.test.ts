import { describe, expect, it } from "vitest";
import type { Piece } from "../../api/joined";
import { kindOf, rampOf, secondsOf, speedAt, withKnot } from "./ramp";

const piece: Piece = {
  take_id: 1,
  shot_id: null,
  in_s: 0,
  out_s: 4,
  speed: 1,
  backwards: false,
  ramp: [],
  framing: { right: 0, down: 0, follows: false },
};

describe("a ramp", () => {
  it("takes as long as the mean of its slowness", () => {
    const ramp = [
      { at_s: 0, speed: 2 },
      { at_s: 4, speed: 0.5 },
    ];
    expect(secondsOf({ ...piece, ramp })).toBeCloseTo(5, 9);
    expect(secondsOf({ ...piece, out_s: 6, ramp })).toBeCloseTo(9, 9);
    expect(secondsOf({ ...piece, speed: 0.5 })).toBe(8);
  });

  it("has the speed of each knot there, and stays so before and after", () => {
    const ramp = rampOf("dwelling", piece, 0.4);
    for (const knot of ramp) expect(speedAt(ramp, knot.at_s)).toBeCloseTo(knot.speed);
    expect(speedAt(ramp, -1)).toBe(1);
    expect(speedAt(ramp, 99)).toBe(1);
    expect(speedAt(ramp, 2)).toBeCloseTo(0.4);
  });

  it("is told by how its speeds go", () => {
    for (const kind of ["none", "slowing", "quickening", "dwelling"] as const) {
      for (const backwards of [false, true]) {
        const one = { ...piece, backwards };
        expect(kindOf({ ...one, ramp: rampOf(kind, one, 0.5) })).toBe(kind);
      }
    }
  });

  it("slows no further than every frame can be shown once", () => {
    expect(rampOf("slowing", piece, 0.4)[1]?.speed).toBe(0.4);
    expect(rampOf("slowing", piece, 1)[1]?.speed).toBe(0.5);
  });

  it("keeps its knots in order", () => {
    const ramp = rampOf("slowing", piece, 0.5);
    expect(withKnot(ramp, 0, { at_s: 99, speed: 9 })[0]).toEqual({ at_s: 2.55, speed: 4 });
    expect(withKnot(ramp, 1, { at_s: 0, speed: 0 })[1]).toEqual({ at_s: 1.45, speed: 0.05 });
  });
});
