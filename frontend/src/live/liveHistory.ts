import type { TraceColumns } from "../api/client";
import type { LiveAnswer } from "../api/live";
import { BANDS } from "../charts/bands";
import { NO_PULLS, withPull, type Pull } from "./pulls";

/** Seconds of the ridge that are shown. */
export const SHOWN_S = 30;
/** A calm stretch shorter than this is no hold. */
const LEAST_HOLD_S = 1;

/** A figure tells the second before it: after a change of pull it is not yet that pull's. */
const OTHER_S = 1;

export type History = {
  /** The last seconds, as a ridge is drawn. */
  trace: TraceColumns;
  /** Lengths of the calm stretches that broke, s. */
  holds: number[];
  calm_s: number;
  /** What was measured at each pull of the strap; at: the one that is held, since when. */
  pulls: { each: Pull[]; at: number; since_s: number };
};

export const NO_HISTORY: History = {
  trace: { t_s: [], gust: [], shares: BANDS.map(() => []), trusted: [] },
  holds: [],
  calm_s: 0,
  pulls: { each: NO_PULLS, at: 0, since_s: 0 },
};

/** The history with one more answer. */
export function withAnswer(history: History, answer: LiveAnswer): History {
  const { trace, holds, calm_s, pulls } = history;
  const from = trace.t_s.findIndex((t) => t > answer.t_s - SHOWN_S);
  const kept = <T>(column: readonly T[], next: T): T[] => [
    ...(from < 0 ? [] : column.slice(from)),
    next,
  ];
  const passed_s = answer.t_s - (trace.t_s.at(-1) ?? answer.t_s);
  const settled = answer.t_s - pulls.since_s > OTHER_S;
  const broke = answer.calm_s < calm_s && calm_s >= LEAST_HOLD_S;
  return {
    trace: {
      t_s: kept(trace.t_s, answer.t_s),
      gust: kept(trace.gust, answer.gust),
      shares: BANDS.map((_, k) => kept(trace.shares[k] ?? [], answer.shares[k] ?? 0)),
      trusted: kept(trace.trusted, answer.gust !== null),
    },
    holds: broke ? [...holds, calm_s] : holds,
    calm_s: answer.calm_s,
    pulls: settled
      ? { ...pulls, each: withPull(pulls.each, pulls.at, { gust: answer.gust, passed_s }) }
      : pulls,
  };
}

/** The history from where another pull is held. */
export const atPull = (history: History, at: number): History => ({
  ...history,
  pulls: { ...history.pulls, at, since_s: history.trace.t_s.at(-1) ?? 0 },
});
