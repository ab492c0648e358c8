import { describe, expect, it } from "vitest";
import type { LiveAnswer } from "../api/live";
import { lumaOf } from "../camera/frames";
import { samplesOf, turningOf } from "../camera/turning";
import { atPull, NO_HISTORY, SHOWN_S, withAnswer, type History } from "./liveHistory";
import { toneOf } from "./liveTone";
import { bestOf, gustOf } from "./pulls";
import { logOf, RIG_HEADER } from "./rigLog";

const answer = (t_s: number, gust: number | null, calm_s = 0): LiveAnswer => ({
  t_s,
  gust,
  calm_s,
  best_s: 0,
  whole: null,
  reason: gust === null ? "blur" : null,
  shares: [0, 0, 0, 1, 0],
});
const run = (answers: LiveAnswer[], from: History = NO_HISTORY) => answers.reduce(withAnswer, from);
const steady = (from: number, seconds: number, gust: number) =>
  Array.from({ length: seconds * 10 }, (_, k) => answer(from + k / 10, gust, k / 10));

describe("what a phone's motion sensor says of its camera", () => {
  it("is told right, up and clockwise, however the phone is held", () => {
    const up = turningOf({ x: 10, y: 0, z: 0 }, 0);
    expect(up.tilt).toBeCloseTo(10);
    expect(up.pan).toBeCloseTo(0);
    expect(turningOf({ x: 0, y: 10, z: 0 }, 0).pan).toBeCloseTo(-10);
    expect(turningOf({ x: 0, y: 0, z: 10 }, 90).roll).toBeCloseTo(-10);
    // Held across, its right side up: turning about that side is panning.
    const across = turningOf({ x: 10, y: 0, z: 0 }, 90);
    expect(across.pan).toBeCloseTo(-10);
    expect(across.tilt).toBeCloseTo(0);
    expect(turningOf({ x: 10, y: 0, z: 0 }, 180).tilt).toBeCloseTo(-10);
  });
  it("is read from a log in radians", () => {
    const csv = `t,x,y,z\n${[0, 1, 2, 3].map((k) => `${k * 5e6},1,0,0`).join("\n")}\n`;
    const samples = samplesOf(csv);
    expect(samples.map((one) => one.t_s)).toEqual([0, 0.015]);
    expect(samples[0]?.tilt).toBeCloseTo(57.2958, 3);
  });
});

it("weighs colours as films do", () => {
  const colours = new Uint8ClampedArray([255, 255, 255, 255, 0, 0, 0, 255, 0, 255, 0, 255]);
  expect([...lumaOf(colours)]).toEqual([255, 0, 149]);
});

describe("the history of a run", () => {
  it("keeps half a minute of the ridge", () => {
    const { trace } = run(steady(0, 50, 3));
    expect(trace.t_s.at(-1)).toBeCloseTo(49.9);
    expect(trace.t_s[0]).toBeGreaterThan(49.8 - SHOWN_S);
    expect(trace.shares.map((column) => column.length)).toEqual(Array(5).fill(trace.t_s.length));
  });
  it("keeps the holds that broke, not those that hardly began", () => {
    const { holds } = run([answer(0, 3, 0.4), answer(1, 5, 0), answer(2, 3, 6.2), answer(3, 5, 0)]);
    expect(holds).toEqual([6.2]);
  });
  it("counts a pull once its own second is told, and finds the steadiest", () => {
    const slack = run(steady(0, 6, 5));
    const firm = run(steady(6, 6, 3), atPull(slack, 3));
    const [none, , , held] = firm.pulls.each;
    expect(none && gustOf(none)).toBeCloseTo(5);
    expect(held && gustOf(held)).toBeCloseTo(3);
    expect(bestOf(slack.pulls.each)).toBeNull();
    expect(bestOf(firm.pulls.each)).toBe(3);
  });
});

describe("the tone", () => {
  it("is silent while calm, and where nothing can be told", () => {
    expect([toneOf(-1).gain, toneOf(0).gain, toneOf(null).gain]).toEqual([0, 0, 0]);
  });
  it("rises with what is over the target", () => {
    const heard = [0.1, 1, 2, 4].map((over) => toneOf(over));
    expect(heard.every((one) => one.gain > 0)).toBe(true);
    for (let k = 1; k < heard.length; k += 1) {
      expect(heard[k]?.hz).toBeGreaterThan(heard[k - 1]?.hz ?? Infinity);
    }
  });
});

describe("a log of a phone on the rig", () => {
  it("is one table from its pieces, and knows how long it is", () => {
    const log = logOf(5, ["100.0000,1,2,3\n100.5000,1,2,3", "", "102.2500,1,2,3"]);
    expect(log.csv.split("\n")).toHaveLength(5);
    expect(log.csv.startsWith(`${RIG_HEADER}\n100.0000`)).toBe(true);
    expect(log.seconds).toBeCloseTo(2.25);
    expect(logOf(5, []).seconds).toBe(0);
  });
});
