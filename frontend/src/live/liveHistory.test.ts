import { describe, expect, it } from "vitest";
import type { LiveAnswer } from "../api/live";
import { BANDS } from "../charts/bands";
import { atPull, NO_HISTORY, SHOWN_S, withAnswer, type History } from "./liveHistory";
import { gustOf } from "./pulls";

const answer = (t_s: number, gust: number | null, calm_s = 0): LiveAnswer =>
  ({ t_s, gust, calm_s, shares: BANDS.map((_, k) => k / 10) }) as LiveAnswer;

const run = (from_s: number, to_s: number, gust: number | null, history: History = NO_HISTORY) => {
  let now = history;
  for (let t = from_s; t < to_s; t += 0.5) now = withAnswer(now, answer(t, gust));
  return now;
};

describe("what is shown of a live run", () => {
  it("holds the last half minute, every column as long as the other", () => {
    const { trace } = run(0, 100, 4);
    expect(trace.t_s.at(-1)).toBe(99.5);
    expect(trace.t_s[0]).toBeGreaterThan(99.5 - SHOWN_S);
    expect((trace.t_s.at(-1) ?? 0) - (trace.t_s[0] ?? 0)).toBeGreaterThan(SHOWN_S - 1);
    for (const column of [trace.gust, trace.trusted, ...trace.shares])
      expect(column).toHaveLength(trace.t_s.length);
    expect(trace.shares).toHaveLength(BANDS.length);
    expect(trace.shares[2]?.at(-1)).toBe(0.2);
  });

  it("leaves a gap where nothing can be told", () => {
    const { trace } = withAnswer(run(0, 1, 4), answer(1, null));
    expect(trace.gust).toEqual([4, 4, null]);
    expect(trace.trusted).toEqual([true, true, false]);
  });

  it("begins anew after a pause that is longer than what is shown", () => {
    const { trace } = withAnswer(run(0, 5, 4), answer(90, 3));
    expect(trace.t_s).toEqual([90]);
  });

  it("notes a calm stretch as it breaks, once, and none that is no hold", () => {
    let now = NO_HISTORY;
    for (const [t, calm_s] of [[0, 0], [1, 0.8], [2, 0], [3, 1], [4, 2], [5, 3], [6, 0], [7, 0]] as const)
      now = withAnswer(now, answer(t, 4, calm_s)); // prettier-ignore
    expect(now.holds).toEqual([3]);
    expect(now.calm_s).toBe(0);
    expect(withAnswer(now, answer(8, 4, 1)).holds).toEqual([3]);
  });

  it("counts for a pull only what was measured after it was taken", () => {
    const slack = run(0, 6, 6);
    const firm = run(6, 12, 2, atPull(slack, 3));
    expect(firm.pulls.at).toBe(3);
    const [none, , , third] = firm.pulls.each;
    expect(gustOf(none as never)).toBeCloseTo(6);
    // The first second is still of the pull before it.
    expect(third?.seconds).toBeCloseTo(5, 0);
    expect(gustOf(third as never)).toBeCloseTo(2);
    expect(firm.pulls.each[1]?.seconds).toBe(0);
  });

  it("changes nothing that it was given", () => {
    const before = run(0, 3, 4);
    const copy = structuredClone(before);
    withAnswer(before, answer(3, 5, 2));
    atPull(before, 5);
    expect(before).toEqual(copy);
  });
});
