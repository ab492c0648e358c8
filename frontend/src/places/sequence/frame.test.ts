import { describe, expect, it } from "vitest";
import type { PlannedShot } from "../../api/outings";
import { arrowsOf, frameOf, HEIGHT, hillsPath, isPerson, personPath, STORY, thingPath } from "./frame"; // prettier-ignore

const shot = (parts: Partial<PlannedShot>): PlannedShot => ({
  subject: "the mill",
  size: "wide",
  height: "eye",
  move: "still",
  heading: null,
  enters: false,
  foreground: "",
  seconds: 5,
  sound: false,
  playback: 1,
  part: "where",
  joins: "cut",
  ask: "",
  place: "",
  light: "any",
  takes: 1,
  ...parts,
});

describe("a frame", () => {
  it("has its horizon lower the lower the camera is, at every size", () => {
    for (const size of ["wide", "medium", "close"] as const) {
      const horizons = (["ground", "low", "eye", "above"] as const).map(
        (height) => frameOf(shot({ size, height })).horizon,
      );
      expect(horizons).toEqual([...horizons].sort((a, b) => b - a));
    }
  });
  it("crosses a subject at the height of the camera", () => {
    const { horizon, subject } = frameOf(shot({ height: "low" }));
    const { top, tall } = subject ?? { top: 0, tall: 1 };
    expect((top + tall - horizon) / tall).toBeCloseTo(0.32, 5);
  });
  it("shows the subject larger the nearer it is, and a detail without one", () => {
    const tall = (["wide", "medium", "close"] as const).map(
      (size) => frameOf(shot({ size })).subject?.tall ?? 0,
    );
    expect(tall).toEqual([...tall].sort((a, b) => a - b));
    expect(frameOf(shot({ size: "detail" })).subject).toBeNull();
    expect(frameOf(shot({ size: "detail" })).horizon).toBeGreaterThan(HEIGHT);
  });
  it("tells people from things by the words", () => {
    expect(isPerson(shot({ subject: "the miller" }))).toBe(true);
    expect(isPerson(shot({ subject: "the tower" }))).toBe(false);
    expect(isPerson(shot({ subject: "the cap" }))).toBe(false);
  });
  it("points every move its own way", () => {
    const told = new Set(
      [
        shot({}),
        shot({ move: "pan", heading: "left" }),
        shot({ move: "pan", heading: "right" }),
        shot({ move: "slide", heading: "right" }),
        shot({ move: "tilt", heading: "up" }),
        shot({ move: "rise", heading: "up" }),
        shot({ move: "push_in", heading: "in" }),
        shot({ move: "pull_out", heading: "out" }),
        shot({ move: "walk", heading: "in" }),
        shot({ move: "orbit", heading: "left" }),
        shot({ enters: true }),
      ].map((one) => JSON.stringify(arrowsOf(one))),
    );
    expect(told.size).toBe(11);
  });
});

describe("who is in a shot", () => {
  const person = (subject: string) => isPerson(shot({ subject }));

  it("is somebody by what they do or are, wherever they stand", () => {
    for (const one of [
      "the miller", "two walkers", "hands", "fingers on the rope", "a woman at the door",
      "the painter by the river", "a child in the water", "rows of people", "Feet of the miller",
    ])
      expect(person(one), one).toBe(true); // prettier-ignore
  });
  it("is nobody where a word only ends as if", () => {
    for (const one of [
      "the pier", "paper in the wind", "a boulder", "the mirror", "tractor", "winter sky",
      "the shutters", "the water over the wheel", "sails", "the border of the field", "",
    ])
      expect(person(one), one).toBe(false); // prettier-ignore
  });
  it("is not told by what stands beside it", () => {
    expect(person("the mill behind the miller")).toBe(false);
    expect(person("the miller behind the tower")).toBe(true);
  });
});

describe("arrows", () => {
  const numbers = (d: string) => (d.match(/-?\d+(\.\d+)?/g) ?? []).map(Number);

  it("stay within the frame and go where the move goes", () => {
    const across = { pan: ["left", "right"], slide: ["left", "right"], orbit: ["left", "right"] };
    for (const [move, headings] of Object.entries(across)) {
      for (const heading of headings) {
        const [one] = arrowsOf(shot({ move, heading } as Partial<PlannedShot>));
        const [x0 = 0, , , , x1 = 0] = numbers(one?.d ?? "");
        expect(Math.sign(x1 - x0)).toBe(heading === "right" ? 1 : -1);
      }
    }
    for (const move of ["tilt", "rise"] as const) {
      for (const heading of ["up", "down"] as const) {
        const [one] = arrowsOf(shot({ move, heading }));
        const [, y0 = 0, , , , y1 = 0] = numbers(one?.d ?? "");
        expect(Math.sign(y0 - y1)).toBe(heading === "up" ? 1 : -1);
      }
    }
  });
  it("come from the corners, or go to them", () => {
    const inward = arrowsOf(shot({ move: "push_in", heading: "in" }));
    const outward = arrowsOf(shot({ move: "pull_out", heading: "out" }));
    expect([inward.length, outward.length]).toEqual([4, 4]);
    expect(numbers(inward[0]?.d ?? "").slice(0, 2)).toEqual([14, 12]);
    expect(numbers(outward[0]?.d ?? "").slice(4, 6)).toEqual([14, 12]);
  });
  it("are dashed for who walks, and one more where somebody enters", () => {
    for (const heading of ["in", "out", "left", "right"] as const)
      expect(arrowsOf(shot({ move: "walk", heading })).map((one) => one.dashed)).toEqual([true]);
    expect(arrowsOf(shot({ enters: true, move: "still" }))).toHaveLength(1);
    expect(arrowsOf(shot({ move: "still" }))).toEqual([]);
  });
});

it("draws the same figure larger or elsewhere by numbers alone", () => {
  const drawn = [personPath, thingPath].map((path) => path({ kind: "person", tall: 100, top: 10 }, 50)); // prettier-ignore
  for (const path of drawn) {
    expect(path.startsWith("M")).toBe(true);
    expect(path.endsWith("Z")).toBe(true);
    expect(path).not.toContain("NaN");
  }
  expect(hillsPath(40)).toContain("M0 40.0");
  expect(new Set(Object.values(STORY)).size).toBe(Object.keys(STORY).length);
});
