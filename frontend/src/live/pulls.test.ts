import { describe, expect, it } from "vitest";
import { bestOf, gustOf, NO_PULLS, PULLS, withPull, type Pull } from "./pulls";

/** Figures of one second each at a pull. */
const held = (pulls: readonly Pull[], at: number, gusts: (number | null)[]) =>
  gusts.reduce<Pull[]>((all, gust) => withPull(all, at, { gust, passed_s: 1 }), [...pulls]);

describe("pulls of the strap", () => {
  it("say nothing until one was held for three seconds", () => {
    expect(NO_PULLS).toHaveLength(PULLS.length);
    expect(NO_PULLS.map(gustOf)).toEqual(PULLS.map(() => null));
    expect(gustOf(held(NO_PULLS, 2, [4, 4])[2] as Pull)).toBeNull();
    expect(gustOf(held(NO_PULLS, 2, [4, 4, 4])[2] as Pull)).toBeCloseTo(4);
  });

  it("tell the gust of all their seconds, which is nearer to the worst of them", () => {
    const gust = gustOf(held(NO_PULLS, 0, [2, 2, 6])[0] as Pull) ?? 0;
    // The mean of squared speeds: gust is 1.25 doublings of speed.
    const speeds = [2, 2, 6].map((one) => 2 ** (one / 1.25));
    const rms = Math.sqrt(speeds.reduce((sum, one) => sum + one ** 2, 0) / 3);
    expect(gust).toBeCloseTo(1.25 * Math.log2(rms));
    expect(gust).toBeGreaterThan(10 / 3);
    expect(gust).toBeLessThan(6);
  });

  it("do not depend on the order in which they are filmed", () => {
    const there = held(NO_PULLS, 1, [1, 2, 3, 4, 5]);
    const back = held(NO_PULLS, 1, [5, 4, 3, 2, 1]);
    expect(gustOf(there[1] as Pull)).toBeCloseTo(gustOf(back[1] as Pull) ?? -1);
  });

  it("leave out what cannot be told, and change no other", () => {
    const before = held(NO_PULLS, 3, [4, 4, 4]);
    expect(held(before, 3, [null])).toEqual(before);
    expect(withPull(before, 3, { gust: 4, passed_s: 0 })).toEqual(before);
    expect(withPull(before, 3, { gust: 4, passed_s: NaN })).toEqual(before);
    const after = held(before, 0, [2]);
    expect(after.slice(1)).toEqual(before.slice(1));
    expect(NO_PULLS[3]).toEqual({ power: 0, seconds: 0 });
  });

  it("are never told below nothing", () => {
    const still = held(NO_PULLS, 0, [-3, -3, -3]);
    expect(gustOf(still[0] as Pull)).toBe(0);
  });

  it("name the best of two or more", () => {
    const one = held(NO_PULLS, 1, [5, 5, 5]);
    expect(bestOf(one)).toBeNull();
    const two = held(one, 4, [3, 3, 3]);
    expect(bestOf(two)).toBe(4);
    expect(bestOf(held(two, 2, [1, 1]))).toBe(4); // too short to be told
    expect(bestOf(held(two, 2, [1, 1, 1]))).toBe(2);
  });
});
