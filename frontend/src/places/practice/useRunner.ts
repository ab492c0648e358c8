import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { SessionDetail } from "../../api/practice";
import { useSessionChange } from "../../api/practice";
import { runnerAt, turn, type RunnerEffect, type RunnerEvent } from "./runner";
import { Sound, speak } from "./sound";
import { cuesOf, firstOpen, stepsOf, type Step } from "./steps";

const TICK_MS = 50;

export type Runner = {
  steps: Step[];
  step: Step | null;
  elapsed: number;
  running: boolean;
  done: boolean;
  go: () => void;
  pause: () => void;
  skip: () => void;
  repeat: () => void;
  sound: Sound;
};

/** Speed of the clock: faster than life where the address asks for it, to try a session out. */
export function speedOf(search: string): number {
  const asked = Number(new URLSearchParams(search).get("speed"));
  return asked >= 1 && asked <= 60 ? asked : 1;
}

/** Runs a session against the audio clock; a reload goes on at the take that was not filmed. */
export function useRunner(detail: SessionDetail, volume: number, speed: number): Runner {
  const steps = useMemo(() => stepsOf(detail), [detail]);
  const { mutate } = useSessionChange(detail.session.id);
  const [sound] = useState(() => new Sound());
  const [state, setState] = useState(() => runnerAt(firstOpen(steps, detail)));
  const latest = useRef(state);

  const act = useCallback(
    (effect: RunnerEffect) => {
      if (effect.type === "silence") sound.cancel();
      else if (effect.type === "end") mutate({ act: "end", ended: true });
      else if (effect.type === "note") {
        const filmed = effect.state === "filmed" && { filmed_at: new Date().toISOString() };
        mutate({ act: "note", position: effect.position, note: { state: effect.state, ...filmed } }); // prettier-ignore
      } else {
        const cues = cuesAt(detail, steps[effect.step]);
        if (effect.type === "sounds") sound.schedule(cues, effect.from, speed);
        else {
          const words = cues.find((cue) => cue.words)?.words;
          if (words) speak(words, volume);
        }
      }
    },
    [sound, mutate, detail, steps, speed, volume],
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
  useEffect(() => () => sound.close(), [sound]);
  useEffect(() => {
    if (!state.running) return;
    const timer = setInterval(() => happen({ type: "tick", now: sound.now() }), TICK_MS);
    return () => clearInterval(timer);
  }, [state.running, happen, sound]);

  return {
    steps,
    step: steps[state.at] ?? null,
    elapsed: state.elapsed,
    running: state.running,
    done: state.at < 0 || state.at >= steps.length,
    sound,
    go: () => {
      sound.start();
      happen({ type: "go", now: sound.now() });
    },
    pause: () => happen({ type: "pause" }),
    skip: () => happen({ type: "skip", now: sound.now() }),
    repeat: () => happen({ type: "repeat", now: sound.now() }),
  };
}

function cuesAt(detail: SessionDetail, step: Step | undefined) {
  if (!step) return [];
  const block = detail.session.plan.blocks[step.block];
  const drill = block && detail.drills[block.drill_key];
  return cuesOf(step, drill, detail.cadence_hz);
}
