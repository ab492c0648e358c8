import { slateOf, type Step } from "./steps";

/** The runner as a pure machine: what happens at each event, and what is to be done because of it.
 * Times are seconds of the audio clock. */

/** The next step's sounds are handed over so long before it begins: hidden tabs tick slowly. */
const AHEAD_S = 2.5;
/** From a key to the first sound: enough for the audio clock to be met. */
const GO_S = 0.1;
const JUMP_S = 0.05;
/** What is said of a take takes so long; a rest grows by so much at most until it can be said. */
const TELLING_S = 4;
const MOST_GROWN_S = 10;

export type RunnerState = {
  /** Of the step; past the last one where the session is done, -1 where nothing is to be done. */
  at: number;
  running: boolean;
  startedAt: number;
  /** Seconds of the step that have passed. */
  elapsed: number;
  /** Seconds by which a rest has grown, because the take before it is still being measured. */
  grown: number;
  /** The last step whose sounds were handed over. */
  handed: number;
  /** What the last skip or repeat left, until the next take rolls. */
  left: Left | null;
};

/** The step that was left, and what its take was until then; null where nothing became of it. */
type Left = { at: number; position: number; was: "filmed" | "planned" | null };

export type RunnerEvent =
  | { type: "go" | "skip" | "repeat" | "undo"; now: number }
  /** awaited: what came of the take of this rest is still to be told. */
  | { type: "tick"; now: number; awaited: boolean }
  | { type: "pause" };

type Tick = Extract<RunnerEvent, { type: "tick" }>;

export type RunnerEffect =
  | { type: "sounds"; step: number; from: number }
  | { type: "say"; step: number }
  | { type: "silence" }
  | { type: "note"; position: number; state: "filmed" | "skipped" | "planned" }
  | { type: "end" }
  | { type: "reopen" };

/** speed: of the clock against life. */
export type RunnerPlan = { steps: readonly Step[]; speed: number };
type Turn = { state: RunnerState; effects: RunnerEffect[] };

export const runnerAt = (at: number): RunnerState => ({
  at,
  running: false,
  startedAt: 0,
  elapsed: 0,
  grown: 0,
  handed: -1,
  left: null,
});

/** What comes of an event. */
export function turn(state: RunnerState, event: RunnerEvent, plan: RunnerPlan): Turn {
  const step = plan.steps[state.at];
  if (event.type === "pause") return silenced({ ...state, running: false });
  if (event.type === "undo") return undo(state, event.now, plan);
  if (!step) return { state, effects: [] };
  if (event.type === "go") return go(state, step, event.now, plan);
  if (event.type === "tick") return state.running ? tick(grown(state, step, event, plan), step, event.now, plan) : { state, effects: [] }; // prettier-ignore
  return event.type === "repeat"
    ? repeat(state, step, event.now, plan)
    : skip(state, step, event.now, plan);
}

function repeat(state: RunnerState, step: Step, now: number, plan: RunnerPlan): Turn {
  const was = step.kind === "rest" ? "filmed" : "planned";
  return withFirst(
    [{ type: "note", position: step.position, state: "planned" }],
    leaving(
      { at: state.at, position: step.position, was },
      jump(state, slateOf(plan.steps, step.position), now, plan),
    ),
  );
}

/** Back to what the last skip or repeat left. */
function undo(state: RunnerState, now: number, plan: RunnerPlan): Turn {
  const { left } = state;
  if (!left) return { state, effects: [] };
  const note: RunnerEffect[] =
    left.was === null ? [] : [{ type: "note", position: left.position, state: left.was }];
  const reopen: RunnerEffect[] = state.at >= plan.steps.length ? [{ type: "reopen" }] : [];
  return withFirst([...reopen, ...note], leaving(null, jump(state, left.at, now, plan)));
}

const leaving = (left: Left | null, then: Turn): Turn => ({
  state: { ...then.state, left },
  effects: then.effects,
});

function go(state: RunnerState, step: Step, now: number, { steps, speed }: RunnerPlan): Turn {
  const quiet = silenced(state);
  // A take that was broken off is spoilt: it begins again at its slate.
  const broken = step.kind === "roll" || step.kind === "count";
  const from = broken ? slateOf(steps, step.position) : state.at;
  const back = broken ? 0 : state.elapsed / speed;
  return after(quiet, begin({ ...quiet.state, running: true }, from, now + GO_S - back, steps));
}

function tick(state: RunnerState, step: Step, now: number, plan: RunnerPlan): Turn {
  const { steps, speed } = plan;
  const elapsed = (now - state.startedAt) * speed;
  const seconds = step.seconds + state.grown;
  const left = seconds - elapsed;
  const next = state.startedAt + seconds / speed;
  if (left > 0) {
    const soon = left / speed < AHEAD_S;
    return soon ? hand({ ...state, elapsed }, state.at + 1, next, steps) : { state: { ...state, elapsed }, effects: [] }; // prettier-ignore
  }
  const filmed: RunnerEffect[] =
    step.kind === "roll" ? [{ type: "note", position: step.position, state: "filmed" }] : [];
  return withFirst(filmed, begin(state, state.at + 1, next, steps));
}

/** A rest grows while its take is measured, so that there is time left to say what came of it. */
function grown(state: RunnerState, step: Step, tick: Tick, { speed }: RunnerPlan): RunnerState {
  if (step.kind !== "rest" || !tick.awaited) return state;
  const elapsed = (tick.now - state.startedAt) * speed;
  const wanted = elapsed + TELLING_S * speed - step.seconds;
  const most = MOST_GROWN_S * speed;
  return { ...state, grown: Math.max(state.grown, Math.min(most, wanted)) };
}

function skip(state: RunnerState, step: Step, now: number, plan: RunnerPlan): Turn {
  if (step.kind === "warm-up" || step.kind === "set-up" || step.kind === "rest") {
    return leaving(
      { at: state.at, position: step.position, was: null },
      jump(state, state.at + 1, now, plan),
    );
  }
  const next = plan.steps.findIndex(
    (one, index) => index > state.at && one.position > step.position,
  );
  return withFirst(
    [{ type: "note", position: step.position, state: "skipped" }],
    leaving(
      { at: slateOf(plan.steps, step.position), position: step.position, was: "planned" },
      jump(state, next < 0 ? plan.steps.length : next, now, plan),
    ),
  );
}

function jump(state: RunnerState, index: number, now: number, { steps }: RunnerPlan): Turn {
  const quiet = silenced(state);
  if (state.running || index >= steps.length) {
    return after(quiet, begin(quiet.state, index, now + JUMP_S, steps));
  }
  return after(quiet, { state: { ...quiet.state, at: index, elapsed: 0, grown: 0 }, effects: [] });
}

/** A step begins; past the last one the session has ended. */
function begin(state: RunnerState, index: number, from: number, steps: readonly Step[]): Turn {
  const left = steps[index]?.kind === "roll" ? null : state.left;
  const begun = { ...state, at: index, startedAt: from, elapsed: 0, grown: 0, left };
  if (index >= steps.length) {
    return { state: { ...begun, running: false }, effects: [{ type: "end" }] };
  }
  const handed = hand(begun, index, from, steps);
  return after(handed, { state: handed.state, effects: [{ type: "say", step: index }] });
}

/** Hand a step's sounds over, once. */
function hand(state: RunnerState, index: number, from: number, steps: readonly Step[]): Turn {
  if (index >= steps.length || state.handed >= index) return { state, effects: [] };
  return {
    state: { ...state, handed: index },
    effects: [{ type: "sounds", step: index, from }],
  };
}

const silenced = (state: RunnerState): Turn => ({
  state: { ...state, handed: -1 },
  effects: [{ type: "silence" }],
});
const after = (first: Turn, second: Turn): Turn => ({
  state: second.state,
  effects: [...first.effects, ...second.effects],
});
const withFirst = (effects: RunnerEffect[], then: Turn): Turn => ({
  state: then.state,
  effects: [...effects, ...then.effects],
});
