import { describe, expect, it } from "vitest";
import type { PlannedShot } from "../../api/outings";
import { arrowsOf, frameOf, HEIGHT, isPerson } from "./frame";

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
