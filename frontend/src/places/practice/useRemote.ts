import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo, useState } from "react";
import { askAgain, keys } from "../../api/keys";
import type { SessionDetail } from "../../api/practice";
import { useStage, wishStage, type Stage, type Wish } from "../../api/stage";
import { stepsOf } from "./steps";
import { buzz } from "./vibration";
import type { Runner } from "./useRunner";

const LOOK_MS = 250;
const DRAW_MS = 100;

/** The runner of another screen, as this one shows it and asks things of it. null: nobody runs it. */
export function useRemote(detail: SessionDetail): { runner: Runner | null; by: string } {
  const { id } = detail.session;
  const cache = useQueryClient();
  const found = useStage(id, LOOK_MS);
  const { data: stage, dataUpdatedAt } = found;
  const place = stage?.place ?? null;
  const slates = place?.slates ?? true;
  const steps = useMemo(() => stepsOf(detail, slates), [detail, slates]);
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), DRAW_MS);
    return () => clearInterval(timer);
  }, []);
  const at = place?.at ?? -1;
  const kind = steps[at]?.kind;
  useEffect(() => {
    if (kind) buzz(kind);
    void askAgain(cache, keys.session(id));
  }, [cache, id, at, kind]);
  if (!stage || !place) return { runner: null, by: "" };
  const passed_s = elapsedOf(stage, Math.max(0, now - dataUpdatedAt) / 1000);
  const step = steps[at] ?? null;
  const ask = (wish: Wish) => () =>
    void wishStage(id, wish).then(
      () => found.refetch(),
      () => found.refetch(),
    );
  const runner: Runner = {
    steps,
    at,
    step,
    elapsed: passed_s,
    grown: place.grown_s,
    left: (step?.seconds ?? 0) + place.grown_s - passed_s,
    running: place.running,
    interrupted: false,
    done: at < 0 || at >= steps.length,
    begun: true,
    cues: [],
    go: ask("go"),
    pause: ask("pause"),
    skip: ask("skip"),
    repeat: ask("repeat"),
    undo: ask("undo"),
    canUndo: place.can_undo,
  };
  return { runner, by: stage.by ?? "" };
}

/** Seconds of the step that have passed, from where the runner was and how long ago. */
export function elapsedOf({ place, age_s }: Stage, since_s: number): number {
  if (!place) return 0;
  return place.elapsed_s + (place.running ? (age_s + since_s) * place.speed : 0);
}
