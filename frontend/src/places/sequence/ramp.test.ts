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

describe("seconds on screen", () => {
  const knots = (...told: [number, number][]) => told.map(([at_s, speed]) => ({ at_s, speed }));
  /** By summing up small steps. */
  const summed = (one: Piece, steps = 20_000) => {
    const step = (one.out_s - one.in_s) / steps;
    let sum = 0;
    for (let k = 0; k < steps; k++) sum += step / speedAt(one.ramp, one.in_s + (k + 0.5) * step);
    return sum;
  };

  it("are what small steps add up to, wherever the knots lie", () => {
    for (const ramp of [
      knots([0, 2], [4, 0.5]),
      knots([1, 1], [2, 0.3], [2.5, 0.3], [3.5, 1]),
      knots([-3, 0.2], [9, 3]),
      knots([2, 4]),
      knots([0.5, 0.05], [0.9, 4]),
    ])
      for (const [in_s, out_s] of [[0, 4], [1.3, 2.2], [3.9, 4]] as const) {
        const one = { ...piece, in_s, out_s, ramp };
        expect(secondsOf(one)).toBeCloseTo(summed(one), 4);
      } // prettier-ignore
  });

  it("do not depend on which way it runs", () => {
    const ramp = knots([1, 2], [3, 0.5]);
    expect(secondsOf({ ...piece, ramp, backwards: true })).toBe(secondsOf({ ...piece, ramp }));
  });
});

it("never leaves the speeds of its knots between them", () => {
  const ramp = rampOf("dwelling", { ...piece, in_s: 2, out_s: 9 }, 0.25);
  for (let at = 0; at < 12; at += 0.05) {
    expect(speedAt(ramp, at)).toBeGreaterThanOrEqual(0.25 - 1e-9);
    expect(speedAt(ramp, at)).toBeLessThanOrEqual(1 + 1e-9);
  }
});

it("changes one knot and leaves what it was given", () => {
  const ramp = rampOf("dwelling", piece, 0.5);
  const before = structuredClone(ramp);
  const moved = withKnot(ramp, 2, { at_s: 2, speed: 0.7 });
  expect(ramp).toEqual(before);
  expect(moved.filter((knot, k) => knot !== ramp[k])).toEqual([{ at_s: 2, speed: 0.7 }]);
  expect(kindOf({ ...piece, ramp: [...ramp, { at_s: 3.9, speed: 2 }] })).toBe("own");
});
