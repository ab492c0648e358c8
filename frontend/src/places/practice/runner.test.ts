import { describe, expect, it } from "vitest";
import type { SessionDetail } from "../../api/practice";
import { runnerAt, turn, type RunnerEffect, type RunnerEvent, type RunnerState } from "./runner";
import { slateOf, stepsOf } from "./steps";

const steps = stepsOf({
  session: {
    plan: {
      warm_up_s: 0,
      blocks: [{ order: ["a", "b"], take_s: 8, rest_s: 20 }],
    },
  },
} as unknown as SessionDetail);
const kinds = steps.map((step) => step.kind);

/** Runs events one after the other; gives the last state and everything that was to be done. */
function run(events: RunnerEvent[], state: RunnerState = runnerAt(0), speed = 1) {
  const done: RunnerEffect[] = [];
  for (const event of events) {
    const next = turn(state, event, { steps, speed });
    state = next.state;
    done.push(...next.effects);
  }
  return { state, done };
}
const ticks = (from: number, to: number, by = 0.05, awaited = false): RunnerEvent[] =>
  Array.from({ length: Math.round((to - from) / by) }, (_, k) => ({
    type: "tick",
    now: from + (k + 1) * by,
    awaited,
  }));
const of = <T extends RunnerEffect["type"]>(done: RunnerEffect[], type: T) =>
  done.filter((one): one is Extract<RunnerEffect, { type: T }> => one.type === type);

describe("a session that runs through", () => {
  const total = steps.reduce((sum, step) => sum + step.seconds, 0);
  const { state, done } = run([{ type: "go", now: 0 }, ...ticks(0, total + 1)]);
  it("gives every step its sounds once, each when the last has ended", () => {
    const sounds = of(done, "sounds");
    expect(sounds.map((one) => one.step)).toEqual(kinds.map((_, index) => index));
    let due = 0.1;
    for (const one of sounds) {
      expect(one.from).toBeCloseTo(due, 9);
      due += steps[one.step]?.seconds ?? 0;
    }
    expect(of(done, "say").map((one) => one.step)).toEqual(sounds.map((one) => one.step));
  });
  it("notes each take as filmed, and ends", () => {
    expect(of(done, "note")).toEqual([
      { type: "note", position: 0, state: "filmed" },
      { type: "note", position: 1, state: "filmed" },
    ]);
    expect(of(done, "end")).toHaveLength(1);
    expect(state).toMatchObject({ at: steps.length, running: false });
  });
  it("hands sounds over before they are due to a page that ticks once a second", () => {
    let state = turn(runnerAt(0), { type: "go", now: 0 }, { steps, speed: 1 }).state;
    for (const event of ticks(0, total, 1)) {
      const next = turn(state, event, { steps, speed: 1 });
      state = next.state;
      for (const one of of(next.effects, "sounds")) {
        expect(one.from).toBeGreaterThan("now" in event ? event.now : 0);
      }
    }
    expect(state.handed).toBe(steps.length - 1);
  });
});

describe("a session that is broken off", () => {
  const begun = (at: number, seconds = 3) =>
    run([{ type: "go", now: 0 }, ...ticks(0, seconds)], runnerAt(at)).state;
  it("goes on within a rest, and begins a take again at its slate", () => {
    const rest = kinds.indexOf("rest");
    const paused = run([{ type: "pause" }, { type: "go", now: 10 }], begun(rest));
    expect(paused.state.at).toBe(rest);
    expect(paused.state.startedAt).toBeCloseTo(10.1 - 2.9, 9);
    const rolling = begun(slateOf(steps, 0), 10);
    expect(rolling.at).toBe(kinds.indexOf("roll"));
    const again = run([{ type: "pause" }, { type: "go", now: 10 }], rolling);
    expect(again.state.at).toBe(slateOf(steps, 0));
    expect(again.state.startedAt).toBeCloseTo(10.1, 9);
  });
  it("falls silent, and hands the sounds over anew", () => {
    const { done } = run([{ type: "pause" }, { type: "go", now: 10 }], begun(0));
    expect(done.map((one) => one.type)).toEqual(["silence", "silence", "sounds", "say"]);
  });
  it("does not move while it is paused", () => {
    const paused = run([{ type: "pause" }], begun(0)).state;
    expect(run(ticks(100, 101), paused)).toEqual({ state: paused, done: [] });
  });
});

describe("skipping and repeating", () => {
  it("skips a take to the next one, and says so", () => {
    const { state, done } = run([{ type: "skip", now: 0 }], runnerAt(kinds.indexOf("roll")));
    expect(of(done, "note")).toEqual([{ type: "note", position: 0, state: "skipped" }]);
    expect(steps[state.at]).toMatchObject({ position: 1, kind: "slate" });
    expect(state.running).toBe(false);
  });
  it("skips setting up and rests without a note", () => {
    const { state, done } = run([{ type: "skip", now: 0 }]);
    expect(of(done, "note")).toEqual([]);
    expect(state.at).toBe(1);
  });
  it("ends the session where nothing is left", () => {
    for (const kind of ["roll", "rest"] as const) {
      const { state, done } = run([{ type: "skip", now: 0 }], runnerAt(kinds.lastIndexOf(kind)));
      expect(of(done, "end")).toHaveLength(1);
      expect(state.running).toBe(false);
    }
  });
  it("repeats a take from its slate, and it is to be filmed again", () => {
    const rest = kinds.indexOf("rest");
    const { state, done } = run([{ type: "go", now: 0 }, { type: "repeat", now: 5 }], runnerAt(rest)); // prettier-ignore
    expect(of(done, "note")).toEqual([{ type: "note", position: 0, state: "planned" }]);
    expect(state).toMatchObject({ at: slateOf(steps, 0), running: true });
    expect(state.startedAt).toBeCloseTo(5.05, 9);
  });
  it("takes a skip back to the take's slate, and a repeat to where it was", () => {
    const roll = kinds.indexOf("roll");
    const skipped = run(
      [
        { type: "go", now: 0 },
        { type: "skip", now: 3 },
      ],
      runnerAt(roll),
    ).state;
    const back = run([{ type: "undo", now: 4 }], skipped);
    expect(back.state).toMatchObject({ at: slateOf(steps, 0), left: null, running: true });
    expect(of(back.done, "note")).toEqual([{ type: "note", position: 0, state: "planned" }]);
    const rest = kinds.indexOf("rest");
    const again = run(
      [
        { type: "go", now: 0 },
        { type: "repeat", now: 3 },
      ],
      runnerAt(rest),
    ).state;
    const forth = run([{ type: "undo", now: 4 }], again);
    expect(forth.state.at).toBe(rest);
    expect(of(forth.done, "note")).toEqual([{ type: "note", position: 0, state: "filmed" }]);
    expect(run([{ type: "undo", now: 5 }], forth.state).done).toEqual([]);
  });
  it("has nothing to take back once the next take rolls, and opens what a skip ended", () => {
    const skipped = run([
      { type: "go", now: 0 },
      { type: "skip", now: 3 },
    ]).state;
    expect(skipped.left).not.toBeNull();
    expect(run(ticks(3, 3 + 12), skipped).state).toMatchObject({ left: null });
    const last = steps.findLastIndex((step) => step.kind === "count");
    const ended = run(
      [
        { type: "go", now: 0 },
        { type: "skip", now: 1 },
      ],
      runnerAt(last),
    );
    expect(of(ended.done, "end")).toHaveLength(1);
    const open = run([{ type: "undo", now: 2 }], ended.state);
    expect(of(open.done, "reopen")).toHaveLength(1);
    expect(open.state.at).toBe(slateOf(steps, 1));
  });
  it("does nothing once the session is done", () => {
    const done = runnerAt(steps.length);
    for (const type of ["go", "skip", "repeat"] as const) {
      expect(turn(done, { type, now: 1 }, { steps, speed: 1 }).effects).toEqual([]);
    }
    expect(run(ticks(1, 2), done).done).toEqual([]);
  });
});

describe("a rest while its take is measured", () => {
  const rest = kinds.indexOf("rest");
  const seconds = steps[rest]?.seconds ?? 0;
  const begun = run([{ type: "go", now: 0 }], runnerAt(rest)).state;
  /** When the rest has ended, seconds from its beginning. */
  const lasted = (events: RunnerEvent[]) => {
    let state = begun;
    for (const event of events) {
      state = turn(state, event, { steps, speed: 1 }).state;
      if (state.at > rest && event.type === "tick") return event.now;
    }
    return Infinity;
  };
  it("is as long as planned where the result comes early", () => {
    expect(lasted([...ticks(0, 5, 0.05, true), ...ticks(5, 60)])).toBeCloseTo(seconds + 0.1, 0);
  });
  it("leaves time to say what comes late", () => {
    const late = seconds + 2;
    const end = lasted([...ticks(0, late, 0.05, true), ...ticks(late, 60)]);
    expect(end - late).toBeCloseTo(4, 0);
  });
  it("grows by ten seconds at most, and gives the next sounds ahead all the same", () => {
    expect(lasted(ticks(0, 60, 0.05, true))).toBeCloseTo(seconds + 10.1, 0);
    const { done } = run(ticks(0, seconds + 9, 0.05, true), begun);
    expect(of(done, "sounds").map((one) => one.step)).toEqual([rest + 1]);
  });
});

it("runs faster where the clock does", () => {
  const { state, done } = run([{ type: "go", now: 0 }, ...ticks(0, 5)], runnerAt(0), 10);
  expect(state.at).toBeGreaterThan(0);
  expect(of(done, "sounds")[1]?.from).toBeCloseTo(0.1 + (steps[0]?.seconds ?? 0) / 10, 9);
});
