import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { SessionDetail } from "../../api/practice";
import { useSessionChange } from "../../api/practice";
import { Sound, speak } from "./sound";
import { cuesOf, firstOpen, slateOf, stepsOf, type Step } from "./steps";

const TICK_MS = 50;
/** The next step's sounds are handed over so long before it begins: hidden tabs tick slowly. */
const AHEAD_S = 2.5;

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

const now = () => new Date().toISOString();

/** Speed of the clock: faster than life where the address asks for it, to try a session out. */
export function speedOf(search: string): number {
  const asked = Number(new URLSearchParams(search).get("speed"));
  return asked >= 1 && asked <= 60 ? asked : 1;
}

/** Runs a session against the audio clock; a reload goes on at the take that was not filmed. */
export function useRunner(detail: SessionDetail, volume: number, speed: number): Runner {
  const steps = useMemo(() => stepsOf(detail), [detail]);
  const change = useSessionChange(detail.session.id);
  const [sound] = useState(() => new Sound());
  const [at, setAt] = useState(() => firstOpen(steps, detail));
  const [elapsed, setElapsed] = useState(0);
  const [running, setRunning] = useState(false);
  const startedAt = useRef(0);
  const scheduled = useRef(-1);
  const finished = useRef(-1);
  const step = steps[at] ?? null;
  const note = change.mutate;

  const hand = useCallback(
    (index: number, from: number) => {
      const next = steps[index];
      if (!next || scheduled.current >= index) return;
      scheduled.current = index;
      const block = detail.session.plan.blocks[next.block];
      const drill = block && detail.drills[block.drill_key];
      sound.schedule(cuesOf(next, drill, detail.cadence_hz), from, speed);
    },
    [steps, detail, sound, speed],
  );

  const begin = useCallback(
    (index: number, from: number) => {
      startedAt.current = from;
      setAt(index);
      setElapsed(0);
      hand(index, from);
      const next = steps[index];
      const block = next && detail.session.plan.blocks[next.block];
      const drill = block && detail.drills[block.drill_key];
      const words = next && cuesOf(next, drill, detail.cadence_hz).find((cue) => cue.words)?.words;
      if (words) speak(words, volume);
    },
    [hand, steps, detail, volume],
  );

  useEffect(() => sound.setVolume(volume), [sound, volume]);
  useEffect(() => () => sound.close(), [sound]);
  useEffect(() => {
    if (!running || !step) return;
    const tick = () => {
      const past = (sound.now() - startedAt.current) * speed;
      const left = step.seconds - past;
      if (left > 0) {
        setElapsed(past);
        if (left / speed < AHEAD_S) hand(at + 1, startedAt.current + step.seconds / speed);
        return;
      }
      if (finished.current === at) return;
      finished.current = at;
      if (step.kind === "roll") {
        note({ act: "note", position: step.position, note: { state: "filmed", filmed_at: now() } });
      }
      begin(at + 1, startedAt.current + step.seconds / speed);
      if (at + 1 >= steps.length) {
        setRunning(false);
        note({ act: "end", ended: true });
      }
    };
    const timer = setInterval(tick, TICK_MS);
    return () => clearInterval(timer);
  }, [running, step, at, steps, sound, speed, hand, begin, note]);

  const stopSounds = () => {
    sound.cancel();
    scheduled.current = -1;
    finished.current = -1;
  };
  const jump = (index: number) => {
    stopSounds();
    if (running) begin(index, sound.now() + 0.05);
    else {
      setAt(index);
      setElapsed(0);
    }
  };
  return {
    steps,
    step,
    elapsed,
    running,
    done: at < 0 || at >= steps.length,
    sound,
    go: () => {
      if (!step) return;
      sound.start();
      stopSounds();
      // A take that was broken off is spoilt: it begins again at its slate.
      const broken = step.kind === "roll" || step.kind === "count";
      const from = broken ? slateOf(steps, step.position) : at;
      const back = broken ? 0 : elapsed / speed;
      begin(from, sound.now() + 0.1 - back);
      setRunning(true);
    },
    pause: () => {
      stopSounds();
      setRunning(false);
    },
    skip: () => {
      if (!step) return;
      if (step.kind === "warm-up" || step.kind === "set-up" || step.kind === "rest") {
        jump(at + 1);
        return;
      }
      note({ act: "note", position: step.position, note: { state: "skipped" } });
      const next = steps.findIndex((one, index) => index > at && one.position > step.position);
      jump(next < 0 ? steps.length : next);
      if (next < 0) {
        setRunning(false);
        note({ act: "end", ended: true });
      }
    },
    repeat: () => {
      if (!step) return;
      note({ act: "note", position: step.position, note: { state: "planned" } });
      jump(slateOf(steps, step.position));
    },
  };
}
