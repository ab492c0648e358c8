import { describe, expect, it } from "vitest";
import { beatFrames, beatsOf, counted } from "./tempo";

describe("taps", () => {
  it("say the tempo from the fourth on", () => {
    let taps: number[] = [];
    const told = [0, 600, 1210, 1800, 2400].map((at) => beatsOf((taps = counted(taps, at))));
    expect(told.slice(0, 3)).toEqual([null, null, null]);
    expect(told[4]).toBe(100);
  });

  it("begin anew after a pause", () => {
    expect(counted([0, 500, 1000], 9000)).toEqual([9000]);
  });

  it("that no music has say nothing", () => {
    expect(beatsOf([0, 40, 80, 120])).toBeNull();
  });
});

it("beats do not drift", () => {
  const frames = beatFrames(100, 24, 24 * 60);
  expect(frames.slice(0, 4)).toEqual([0, 14, 29, 43]);
  expect(frames[100]).toBe(1440);
});
