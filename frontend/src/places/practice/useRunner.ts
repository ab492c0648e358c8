import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { SessionDetail } from "../../api/practice";
import { useSessionChange } from "../../api/practice";
import type { FilmedTakes } from "./filmedTakes";
import { runnerAt, turn, type RunnerEffect, type RunnerEvent } from "./runner";
import { Sound, Voice, type Played } from "./sound";
import { cuesOf, firstOpen, spokenOf, stepsOf, type Step } from "./steps";
import { buzz } from "./vibration";
import { useAwake } from "./useAwake";

const TICK_MS = 50;

export type Runner = {
  steps: Step[];
  /** Of the step; past the last one where the session is done. */
  at: number;
  step: Step | null;
  elapsed: number;
  /** Seconds by which a rest has grown. */
  grown: number;
  /** Seconds of the step that are left. */
  left: number;
  running: boolean;
  /** The sound was taken away, as by a call, and the session paused for it. */
  interrupted: boolean;
  done: boolean;
  go: () => void;
  pause: () => void;
  skip: () => void;
  repeat: () => void;
  /** Take the last skip or repeat back. */
  undo: () => void;
  canUndo: boolean;
  /** Something of it was heard. */
  begun: boolean;
  /** What was scheduled to sound; read by tests. */
  cues: readonly Played[];
};

/** Speed of the clock: faster than life where the address asks for it, to try a session out. */
export function speedOf(search: string): number {
  const asked = Number(new URLSearchParams(search).get("speed"));
  return asked >= 1 && asked <= 60 ? asked : 1;
}

type Options = {
  volume: number;
  speed: number;
  /** A slate is shown before each take. */
  slates: boolean;
  /** Films come by themselves to a watched folder. */
  comes: boolean;
};

/** Runs a session against the audio clock; a reload goes on at the take that was not filmed. */
export function useRunner(
  detail: SessionDetail,
  filmed: FilmedTakes,
  { volume, speed, slates, comes }: Options,
): Runner {
  const steps = useMemo(() => stepsOf(detail, slates), [detail, slates]);
  const { mutate } = useSessionChange(detail.session.id);
  const [sound] = useState(() => new Sound());
  const [voice] = useState(() => new Voice());
  const [state, setState] = useState(() => runnerAt(firstOpen(steps, detail)));
  const latest = useRef(state);

  const act = useCallback(
    (effect: RunnerEffect) => {
      if (effect.type === "silence") {
        sound.cancel();
        voice.hush();
        filmed.drop();
      } else if (effect.type === "end") mutate({ act: "end", ended: true });
      else if (effect.type === "reopen") mutate({ act: "end", ended: false });
      else if (effect.type === "note") {
        const at = effect.state === "filmed" && { filmed_at: new Date().toISOString() };
        if (at) {
          filmed.end();
          const before = detail.session.takes[effect.position]?.take_id ?? null;
          if (comes) filmed.expect(effect.position, before);
        }
        mutate({ act: "note", position: effect.position, note: { state: effect.state, ...at } });
      } else {
        const step = steps[effect.step];
        const block = step && detail.session.plan.blocks[step.block];
        if (!step || !block) return;
        const drill = detail.drills[block.drill_key];
        if (effect.type === "sounds") {
          const rests = block.rest_s > 0;
          const cues = cuesOf(step, { drill, cadenceHz: detail.cadence_hz, rests });
          sound.schedule(cues, effect.from, speed);
        } else {
          const variation = detail.session.takes[step.position]?.variation_key ?? "";
          if (step.kind === "roll") filmed.begin(step.position);
          buzz(step.kind);
          voice.say(spokenOf(step, drill, variation), { volume, speed });
        }
      }
    },
    [sound, voice, filmed, mutate, detail, steps, speed, volume, comes],
  );
  const happen = useCallback(
    (event: RunnerEvent) => {
      const next = turn(latest.current, event, { steps, speed });
      latest.current = next.state;
      setState(next.state);
      next.effects.forEach(act);
    },
    [act, steps, speed],
  );

  useEffect(() => sound.setVolume(volume), [sound, volume]);
  const [interrupted, setInterrupted] = useState(false);
  useEffect(() => {
    sound.whenInterrupted(() => {
      happen({ type: "pause" });
      setInterrupted(true);
    });
  }, [sound, happen]);
  useEffect(
    () => () => {
      sound.close();
      voice.hush();
    },
    [sound, voice],
  );
  useAwake(state.running);
  useEffect(() => {
    if (!state.running) return;
    const tick = () => {
      const position = steps[latest.current.at]?.position ?? -1;
      happen({ type: "tick", now: sound.now(), awaited: filmed.isAwaited(position) });
    };
    const timer = setInterval(tick, TICK_MS);
    return () => clearInterval(timer);
  }, [state.running, happen, sound, steps, filmed]);

  return {
    steps,
    at: state.at,
    step: steps[state.at] ?? null,
    elapsed: state.elapsed,
    grown: state.grown,
    left: (steps[state.at]?.seconds ?? 0) + state.grown - state.elapsed,
    running: state.running,
    interrupted: interrupted && !state.running,
    done: state.at < 0 || state.at >= steps.length,
    begun: sound.log.length > 0,
    cues: sound.log,
    go: () => {
      setInterrupted(false);
      sound.start();
      happen({ type: "go", now: sound.now() });
    },
    pause: () => happen({ type: "pause" }),
    skip: () => happen({ type: "skip", now: sound.now() }),
    repeat: () => happen({ type: "repeat", now: sound.now() }),
    undo: () => happen({ type: "undo", now: sound.now() }),
    canUndo: state.left !== null,
  };
}
