import { describe, expect, it } from "vitest";
import type { Drill, SessionDetail } from "../../api/practice";
import { clockWords, cuesOf, firstOpen, secondsLeft, slateOf, startOf, stepsOf } from "./steps";

const take = (position: number, state = "planned") => ({ position, state });
const detail = {
  session: {
    plan: {
      warm_up_s: 60,
      blocks: [
        { order: ["a", "b"], take_s: 8, rest_s: 20 },
        { order: ["a"], take_s: 5, rest_s: 0 },
      ],
    },
    takes: [take(0), take(1), take(2)],
  },
} as unknown as SessionDetail;
const steps = stepsOf(detail);

describe("the steps of a session", () => {
  it("are warm-up, then each block's setting up and takes", () => {
    expect(steps.map((step) => step.kind)).toEqual([
      "warm-up", "set-up", "slate", "count", "roll", "rest", "slate", "count", "roll", "rest",
      "set-up", "slate", "count", "roll",
    ]); // prettier-ignore
    expect(secondsLeft(steps, 0, 0)).toBe(60 + 45 + 2 * (3 + 5 + 8 + 20) + 45 + 3 + 5 + 5);
  });
  it("go on at the first take that is still open", () => {
    const some = {
      session: { ...detail.session, takes: [take(0, "filmed"), take(1, "skipped"), take(2)] },
    } as SessionDetail;
    expect(firstOpen(steps, detail)).toBe(0);
    expect(firstOpen(steps, some)).toBe(startOf(steps, 2));
    expect(steps[startOf(steps, 2)]?.kind).toBe("set-up");
    expect(steps[slateOf(steps, 2)]?.kind).toBe("slate");
    const none = {
      session: { ...detail.session, takes: [take(0, "filmed")] },
    } as unknown as SessionDetail;
    expect(firstOpen(steps, none)).toBe(-1);
  });
});

describe("cues", () => {
  const roll = { kind: "roll" as const, seconds: 8, position: 0, block: 0 };
  it("count five down, and say so once", () => {
    const cues = cuesOf({ ...roll, kind: "count", seconds: 5 }, undefined, 2);
    expect(cues.map((cue) => cue.at)).toEqual([0, 1, 2, 3, 4]);
    expect(cues.filter((cue) => cue.words)).toHaveLength(1);
  });
  it("beat evenly at the cadence of a walk", () => {
    const beats = cuesOf(roll, { tempo: "walk" } as Drill, 1.8).filter((c) => c.tone === "beat");
    beats.forEach((beat, k) => expect(beat.at).toBeCloseTo((k + 1) / 1.8, 9));
    expect(beats.at(-1)?.at).toBeLessThan(8);
  });
  it("mark start, middle and end of a move", () => {
    const cues = cuesOf(roll, { tempo: "move" } as Drill, 1.8);
    expect(cues.map((cue) => cue.tone)).toEqual(["roll", "mark", "mark"]);
    expect(cues[1]?.at).toBe(4);
  });
  it("tell the time left", () => {
    expect(clockWords(65)).toBe("1:05");
    expect(clockWords(-3)).toBe("0:00");
  });
});
