import type { Drill, SessionDetail } from "../../api/practice";

/** What the runner does, one after the other. position: of the take it belongs to, or null. */
export type StepKind = "warm-up" | "set-up" | "slate" | "count" | "roll" | "rest";
export type Step = { kind: StepKind; seconds: number; position: number; block: number };

export const SETTING_UP_S = 45;
export const SLATE_S = 3;
export const COUNT_S = 5;

/** All steps of a session, in order. Every take has its slate, count-in, roll and rest. */
export function stepsOf({ session }: Pick<SessionDetail, "session">): Step[] {
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
      step("slate", SLATE_S);
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

/** The slate of a take, past any warm-up and setting up. */
export function slateOf(steps: readonly Step[], position: number): number {
  return steps.findIndex((step) => step.position === position && step.kind === "slate");
}

export type Cue = {
  at: number;
  tone: "tick" | "roll" | "end" | "beat" | "mark" | "breath";
  words?: string;
};

/** Sounds within a step, seconds from its start. cadenceHz: steps a second of a walk. */
export function cuesOf(step: Step, drill: Drill | undefined, cadenceHz: number): Cue[] {
  if (step.kind === "count") {
    return Array.from({ length: COUNT_S }, (_, k) => ({
      at: k,
      tone: "tick" as const,
      ...(k === 0 ? { words: "Get ready" } : {}),
    }));
  }
  if (step.kind !== "roll") {
    return step.kind === "rest" ? [{ at: 0, tone: "end", words: "Rest" }] : [];
  }
  const cues: Cue[] = [{ at: 0, tone: "roll", words: "Roll" }];
  if (drill?.tempo === "walk") {
    const beats = Math.ceil(step.seconds * cadenceHz) - 1;
    for (let k = 1; k <= beats; k++) cues.push({ at: k / cadenceHz, tone: "beat" });
  }
  if (drill?.tempo === "move") {
    cues.push({ at: step.seconds / 2, tone: "mark", words: "Middle" });
    cues.push({ at: step.seconds - 0.05, tone: "mark" });
  }
  if (drill?.tempo === "breath") cues.push({ at: 0.4, tone: "breath", words: "Breathe out" });
  return cues;
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
