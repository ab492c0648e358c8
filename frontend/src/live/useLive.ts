import { useCallback, useEffect, useRef, useState } from "react";
import type { LiveAnswer, LiveSetting } from "../api/live";
import { bestHold, keepHold } from "./bestHold";
import { atPull, NO_HISTORY, withAnswer, type History } from "./liveHistory";
import { beginRun, type Kept, type LiveRun, type LiveSource } from "./liveRun";
import type { Heard } from "./liveLine";
import { LiveTone } from "./liveTone";

export type Live = {
  state: "off" | "begins" | "runs" | "ends";
  answer: LiveAnswer | null;
  history: History;
  /** From the eye to the figure, ms. */
  lag_ms: number;
  /** Every so manyth sample alone is measured, since more cannot be kept up with. */
  thin: number;
  stream: MediaStream | null;
  fault: Error | null;
  /** What the last run left, to be kept as a take. */
  kept: Kept | null;
  start: (source: LiveSource, setting: LiveSetting) => void;
  stop: () => void;
  forget: () => void;
  /** The longest hold of earlier runs with this source and target, s; to be beaten. */
  record_s: number;
  /** Another pull of the strap is held from now on. */
  pull: (at: number) => void;
};

/** One meter that runs while it is wanted, seen and heard. sound: whether a tone is wanted. */
export function useLive(sound: boolean): Live {
  const [state, setState] = useState<Live["state"]>("off");
  const [answer, setAnswer] = useState<LiveAnswer | null>(null);
  const [history, setHistory] = useState(NO_HISTORY);
  const [speed, setSpeed] = useState({ lag_ms: 0, thin: 1 });
  const [stream, setStream] = useState<MediaStream | null>(null);
  const [fault, setFault] = useState<Error | null>(null);
  const [kept, setKept] = useState<Kept | null>(null);
  const [target, setTarget] = useState(0);
  const [record_s, setRecord] = useState(0);
  const [tone] = useState(() => new LiveTone());
  const run = useRef<LiveRun | null>(null);
  const begins = useRef<AbortController | null>(null);

  const stop = useCallback(() => {
    const ending = run.current;
    run.current = null;
    if (begins.current) {
      begins.current.abort();
      begins.current = null;
      setState("off");
    }
    if (!ending) return;
    setState("ends");
    setStream(null);
    void ending.stop().then((left) => {
      setKept(left);
      setState("off");
    });
  }, []);

  const start = useCallback(
    (source: LiveSource, setting: LiveSetting) => {
      tone.start();
      setState("begins");
      setFault(null);
      setKept(null);
      setAnswer(null);
      setHistory(NO_HISTORY);
      setTarget(setting.target);
      const what = `${source} ${setting.target.toFixed(1)}`;
      setRecord(bestHold(what));
      begins.current?.abort();
      const asked = (begins.current = new AbortController());
      const told = {
        heard: (heard: Heard) => {
          setFault(null);
          keepHold(what, heard.answer.best_s);
          setAnswer(heard.answer);
          setSpeed({ lag_ms: heard.lag_ms, thin: heard.thin });
          setHistory((before) => withAnswer(before, heard.answer));
        },
        failed: setFault,
      };
      beginRun(source, setting, told, asked.signal)
        .then((begun) => {
          // Whoever has left while a camera was asked for is not filmed by it.
          if (begins.current !== asked) return void begun.stop();
          begins.current = null;
          run.current = begun;
          setStream(begun.stream);
          setState("runs");
        })
        .catch((error: Error) => {
          if (begins.current !== asked) return;
          begins.current = null;
          setFault(error);
          setState("off");
        });
    },
    [tone],
  );

  const gust = state === "runs" ? (answer?.gust ?? null) : null;
  useEffect(
    () => tone.set(gust === null ? null : gust - target, sound),
    [tone, gust, target, sound],
  );
  useEffect(
    () => () => {
      begins.current?.abort();
      begins.current = null;
      void run.current?.stop();
      run.current = null;
      tone.stop();
    },
    [tone],
  );
  return {
    state,
    answer,
    history,
    ...speed,
    stream,
    fault,
    kept,
    start,
    stop,
    record_s,
    forget: () => setKept(null),
    pull: (at) => setHistory((before) => atPull(before, at)),
  };
}
