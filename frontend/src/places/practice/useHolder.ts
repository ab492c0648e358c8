import { useEffect, useEffectEvent, useRef, useState } from "react";
import { leaveStage, tellStage, type Place } from "../../api/stage";
import type { Runner } from "./useRunner";

const LOOK_MS = 200;
const RUNNING_MS = 400;
const PAUSED_MS = 1200;

/**
 * Say where this screen's runner is, and do what other screens ask of it. It runs by itself where
 * nobody answers. Returns the screen that has taken it over, "" where none has.
 */
export function useHolder(
  id: number,
  runner: Runner,
  { speed, slates }: { speed: number; slates: boolean },
): { takenBy: string; takeBack: () => void } {
  const [takenBy, setTakenBy] = useState("");
  const told = useRef({ at: 0, what: "", busy: false, take: true });
  const tell = useEffectEvent(async () => {
    const now = performance.now();
    const place: Place = {
      at: runner.at,
      running: runner.running,
      elapsed_s: Math.max(0, runner.elapsed),
      grown_s: runner.grown,
      speed,
      can_undo: runner.canUndo,
      slates,
    };
    const what = `${place.at} ${place.running} ${place.can_undo}`;
    const due = now - told.current.at > (place.running ? RUNNING_MS : PAUSED_MS);
    if (told.current.busy || takenBy || (!due && what === told.current.what)) return;
    const { take } = told.current;
    told.current = { at: now, what, busy: true, take: false };
    try {
      const answer = await tellStage(id, place, take);
      if (!answer.held) {
        runner.pause();
        setTakenBy(answer.by);
      }
      for (const wish of answer.wishes) runner[wish]();
    } catch {
      // Nobody answers: said again at the next look, also that it is held here now.
      told.current = { ...told.current, what: "", take: take || told.current.take };
    } finally {
      told.current.busy = false;
    }
  });
  useEffect(() => {
    const timer = setInterval(() => void tell(), LOOK_MS);
    const leave = () => void leaveStage(id);
    window.addEventListener("pagehide", leave);
    return () => {
      clearInterval(timer);
      window.removeEventListener("pagehide", leave);
      leave();
    };
  }, [id]);
  const takeBack = () => {
    told.current = { ...told.current, take: true, what: "" };
    setTakenBy("");
  };
  return { takenBy, takeBack };
}
