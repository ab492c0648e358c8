import { delMany, entries, set, setMany } from "idb-keyval";
import type { Turning } from "../camera/turning";
import { columnsOf } from "./columns";

/** Times are the clock's, so that a log alone says when it was. */
export const RIG_HEADER = "time_unix_s,pan_deg_s,tilt_deg_s,roll_deg_s";
export const RIG_COLUMNS = columnsOf("time_unix_s");

const KEY = /^rig-(\d+)-\d+$/;
const KEEP_EVERY_MS = 2000;

/** A log that is kept in this browser. begun: ms since 1970. */
export type KeptLog = { begun: number; csv: string; seconds: number };

/** Samples of one session on their way into the browser's own store, a piece every two seconds, so
 * that a page that is closed loses no more than that. What the store has no room for stays here, and
 * is tried again with the next piece. told: whether the latest piece was kept. */
export class RigRecorder {
  readonly begun: number;
  #rows: string[] = [];
  #piece = 0;
  #kept_ms: number;
  #offset_ms: number | null = null;
  #told: (kept: boolean) => void;

  constructor(now_ms: number, told: (kept: boolean) => void = () => undefined) {
    this.begun = now_ms;
    this.#kept_ms = now_ms;
    this.#told = told;
  }

  /** What is not in the store yet, as a log; null where all of it is. */
  get unkept(): KeptLog | null {
    return this.#rows.length === 0 ? null : logOf(this.begun, this.#rows);
  }

  /** The next sample. now_ms: of the clock. */
  push(sample: Turning, now_ms: number): void {
    // The sensor's own steps are finer than the moments at which its samples are handed over.
    this.#offset_ms ??= now_ms - 1000 * sample.t_s;
    const at_s = (this.#offset_ms + 1000 * sample.t_s) / 1000;
    const rates = [sample.pan, sample.tilt, sample.roll].map((value) => value.toFixed(4));
    this.#rows.push([at_s.toFixed(4), ...rates].join(","));
    if (now_ms - this.#kept_ms > KEEP_EVERY_MS) {
      this.#kept_ms = now_ms;
      void this.keep();
    }
  }

  /** Keep what is not kept yet. */
  async keep(): Promise<void> {
    const rows = this.#rows;
    if (rows.length === 0) return;
    this.#rows = [];
    this.#piece += 1;
    try {
      await set(`rig-${this.begun}-${this.#piece}`, rows.join("\n"));
      this.#told(true);
    } catch {
      this.#rows = [...rows, ...this.#rows];
      this.#told(false);
    }
  }
}

/** Logs that wait in this browser to be sent, the oldest first. */
export async function keptLogs(): Promise<KeptLog[]> {
  const pieces = new Map<number, string[]>();
  for (const [key, text] of await entries<string, string>()) {
    const begun = KEY.exec(key)?.[1];
    if (begun === undefined) continue;
    pieces.set(Number(begun), [...(pieces.get(Number(begun)) ?? []), text]);
  }
  return [...pieces].sort(([a], [b]) => a - b).map(([begun, parts]) => logOf(begun, parts));
}

/** A log from its pieces. What had to be tried again may stand in a later piece than what followed. */
export function logOf(begun: number, pieces: string[]): KeptLog {
  const at = (row: string | undefined) => Number(row?.split(",")[0] ?? 0);
  const rows = pieces
    .flatMap((piece) => piece.split("\n"))
    .filter(Boolean)
    .sort((a, b) => at(a) - at(b));
  return {
    begun,
    csv: [RIG_HEADER, ...rows, ""].join("\n"),
    seconds: rows.length ? at(rows.at(-1)) - at(rows[0]) : 0,
  };
}

/** Forget a log; gives how to have it again. */
export async function forgetLog(begun: number): Promise<() => Promise<void>> {
  const all = await entries<string, string>();
  const own = all.filter(([key]) => KEY.exec(key)?.[1] === String(begun));
  await delMany(own.map(([key]) => key));
  return () => setMany(own);
}
