import { describe, expect, it } from "vitest";
import type { Drill, SessionDetail } from "../../api/practice";
import {
  clockWords,
  cuesOf,
  firstOpen,
  secondsLeft,
  slateOf,
  spokenOf,
  startOf,
  stepsOf,
  type Step,
} from "./steps";

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

const asked = (tempo = "none", cadenceHz = 2) => ({
  drill: { tempo } as Drill,
  cadenceHz,
  rests: true,
});

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
    const cues = cuesOf({ ...roll, kind: "count", seconds: 5 }, asked());
    expect(cues.map((cue) => cue.at)).toEqual([0, 1, 2, 3, 4]);
  });
  it("beat evenly at the cadence of a walk", () => {
    const beats = cuesOf(roll, asked("walk", 1.8)).filter((c) => c.tone === "beat");
    beats.forEach((beat, k) => expect(beat.at).toBeCloseTo((k + 1) / 1.8, 9));
    expect(beats.at(-1)?.at).toBeLessThan(8);
  });
  it("mark start, middle and end of a move", () => {
    const cues = cuesOf(roll, asked("move", 1.8));
    expect(cues.map((cue) => cue.tone)).toEqual(["roll", "mark", "mark"]);
    expect(cues[1]?.at).toBe(4);
  });
  it("tell the time left", () => {
    expect(clockWords(65)).toBe("1:05");
    expect(clockWords(-3)).toBe("0:00");
  });
});

describe("what is heard", () => {
  const drill = {
    name: "Pan", tempo: "move", set_up: ["Stand.", "Turn back."],
    variations: [{ key: "end", name: "Feet to the end" }],
  } as unknown as Drill; // prettier-ignore
  const step = (kind: Step["kind"]): Step => ({ kind, seconds: 8, position: 0, block: 0 });
  const all: Step["kind"][] = ["warm-up", "set-up", "slate", "count", "roll", "rest"];

  it("says every phase at its start, with a sound", () => {
    for (const kind of all) {
      expect(spokenOf(step(kind), drill, "end")[0]?.at).toBe(0);
      expect(cuesOf(step(kind), asked("move"))[0]?.at).toBe(0);
    }
  });

  it("reads the drill's steps as it is set up, and names the way at its slate", () => {
    expect(spokenOf(step("set-up"), drill, "end")[0]?.words).toBe("Pan. Stand. Turn back.");
    expect(spokenOf(step("slate"), drill, "end")[0]?.words).toContain("Feet to the end");
  });

  it("says the middle of a timed move in its middle", () => {
    expect(spokenOf(step("roll"), drill, "end")).toEqual([
      { at: 0, words: "Roll" },
      { at: 4, words: "Middle" },
    ]);
  });

  it("sounds the end of a take that no rest follows", () => {
    const tones = (rests: boolean) =>
      cuesOf(step("roll"), { ...asked("none"), rests }).map((cue) => cue.tone);
    expect(tones(true)).not.toContain("end");
    expect(tones(false).at(-1)).toBe("end");
  });
});
