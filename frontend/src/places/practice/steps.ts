import type { Drill, SessionDetail } from "../../api/practice";

/** What the runner does, one after the other. position: of the take it belongs to, or null. */
export type StepKind = "warm-up" | "set-up" | "slate" | "count" | "roll" | "rest";
export type Step = { kind: StepKind; seconds: number; position: number; block: number };

/** What is to be done in each step, in a word or three. */
export const CUE_WORDS: Record<StepKind, string> = {
  "warm-up": "Warm up",
  "set-up": "Set up",
  slate: "Film this code",
  count: "Get ready",
  roll: "Roll",
  rest: "Rest",
};

export const SETTING_UP_S = 45;
export const SLATE_S = 3;
export const COUNT_S = 5;

/** All steps of a session, in order. Every take has its slate, count-in, roll and rest. slates: none
 * where a connected camera's films are filed without them. */
export function stepsOf({ session }: Pick<SessionDetail, "session">, slates = true): Step[] {
  const steps: Step[] = [];
  let position = 0;
  session.plan.blocks.forEach((block, at) => {
    if (at === 0 && session.plan.warm_up_s > 0) {
      steps.push({ kind: "warm-up", seconds: session.plan.warm_up_s, position, block: at });
    }
    steps.push({ kind: "set-up", seconds: SETTING_UP_S, position, block: at });
    for (let take = 0; take < block.order.length; take++) {
      const step = (kind: StepKind, seconds: number) =>
        steps.push({ kind, seconds, position, block: at });
      if (slates) step("slate", SLATE_S);
      step("count", COUNT_S);
      step("roll", block.take_s);
      if (block.rest_s > 0) step("rest", block.rest_s);
      position += 1;
    }
  });
  return steps;
}

/** Where to begin or go on: at the first take that is still to be filmed; -1 where none is. */
export function firstOpen(steps: readonly Step[], detail: Pick<SessionDetail, "session">): number {
  const open = detail.session.takes.find((take) => take.state === "planned");
  return open ? startOf(steps, open.position) : -1;
}

/** The step at which a take begins: its block's setting up where it is the block's first. */
export function startOf(steps: readonly Step[], position: number): number {
  return steps.findIndex((step) => step.position === position);
}

/** The slate of a take, or its count-in where it has none, past any warm-up and setting up. */
export function slateOf(steps: readonly Step[], position: number): number {
  return steps.findIndex(
    (step) => step.position === position && (step.kind === "slate" || step.kind === "count"),
  );
}

export type Cue = {
  at: number;
  tone: "tick" | "roll" | "end" | "beat" | "mark" | "breath";
};

type Asked = {
  drill: Drill | undefined;
  /** Steps a second of a walk. */
  cadenceHz: number;
  /** A rest follows; where none does, the take itself sounds its end. */
  rests: boolean;
};

/** Sounds within a step, seconds from its start: every phase begins with one. */
export function cuesOf(step: Step, { drill, cadenceHz, rests }: Asked): Cue[] {
  if (step.kind === "count") {
    return Array.from({ length: COUNT_S }, (_, k) => ({ at: k, tone: "tick" as const }));
  }
  if (step.kind !== "roll") return [{ at: 0, tone: step.kind === "rest" ? "end" : "mark" }];
  const cues: Cue[] = [{ at: 0, tone: "roll" }];
  if (drill?.tempo === "walk") {
    const beats = Math.ceil(step.seconds * cadenceHz) - 1;
    for (let k = 1; k <= beats; k++) cues.push({ at: k / cadenceHz, tone: "beat" });
  }
  if (drill?.tempo === "move") {
    cues.push({ at: step.seconds / 2, tone: "mark" });
    cues.push({ at: step.seconds - 0.05, tone: "mark" });
  }
  if (drill?.tempo === "breath") cues.push({ at: 0.4, tone: "breath" });
  if (!rests) cues.push({ at: step.seconds, tone: "end" });
  return cues;
}

export type Spoken = { at: number; words: string };

/** What is said within a step, seconds from its start: what it is, and a drill's own steps as it is
 * set up. */
export function spokenOf(step: Step, drill: Drill | undefined, variation: string): Spoken[] {
  const way = drill?.variations.find((one) => one.key === variation);
  switch (step.kind) {
    case "warm-up":
      return [{ at: 0, words: "Warm up. Shoulders, wrists, knees." }];
    case "set-up":
      return [{ at: 0, words: drill ? `${drill.name}. ${drill.set_up.join(" ")}` : "Set up." }];
    case "slate":
      return [
        {
          at: 0,
          words:
            `${step.position === 0 ? "Screen bright. " : ""}Film the code. ${way?.name ?? ""}`.trim(),
        },
      ];
    case "count":
      return [{ at: 0, words: "Get ready" }];
    case "rest":
      return [{ at: 0, words: "Rest" }];
    case "roll":
      return [
        { at: 0, words: drill?.tempo === "breath" ? "Roll. Breathe out." : "Roll" },
        ...(drill?.tempo === "move" ? [{ at: step.seconds / 2, words: "Middle" }] : []),
      ];
  }
}

/** Seconds from now to the end of the session. */
export function secondsLeft(steps: readonly Step[], at: number, elapsed: number): number {
  return steps.slice(at).reduce((sum, step) => sum + step.seconds, 0) - elapsed;
}

/** Minutes and seconds, as "7:05". */
export function clockWords(seconds: number): string {
  const whole = Math.max(0, Math.ceil(seconds));
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, "0")}`;
}
