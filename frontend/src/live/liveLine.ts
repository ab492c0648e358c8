import type { LiveAnswer } from "../api/live";

/** Samples wait so long for others before they are sent together. */
const TOGETHER_MS = 90;
/** More than so many waiting, and the line cannot keep up. */
const MOST_WAITING_MS = 700;
const MOST_THIN = 4;
/** After so long without falling behind, more is tried again. */
const EASY_MS = 8000;

export type Sample = { t_s: number; at: number };
export type Heard = { answer: LiveAnswer; lag_ms: number; thin: number };

type Doing<S extends Sample> = {
  send: (samples: S[]) => Promise<LiveAnswer>;
  heard: (heard: Heard) => void;
  failed: (error: unknown) => void;
  now: () => number;
  later: (act: () => void, ms: number) => void;
};

/**
 * Samples on their way to the meter, a few together and one request after the other. Where they come
 * faster than they are measured, it thins them: every second, third or fourth alone goes.
 */
export class LiveLine<S extends Sample> {
  #doing: Doing<S>;
  #waiting: S[] = [];
  #count = 0;
  #busy = false;
  #planned = false;
  #over = false;
  #thin = 1;
  #easySince: number;

  constructor(doing: Doing<S>) {
    this.#doing = doing;
    this.#easySince = doing.now();
  }

  /** The next sample. */
  push(sample: S) {
    if (this.#over || this.#count++ % this.#thin !== 0) return;
    this.#waiting.push(sample);
    this.#thinOut();
    if (this.#busy || this.#planned) return;
    this.#planned = true;
    this.#doing.later(() => {
      this.#planned = false;
      void this.#flush();
    }, TOGETHER_MS);
  }

  /** Send nothing any more. */
  stop() {
    this.#over = true;
    this.#waiting = [];
  }

  #thinOut() {
    const now = this.#doing.now();
    const first = this.#waiting[0];
    if (first && now - first.at > MOST_WAITING_MS) {
      this.#easySince = now;
      this.#thin = Math.min(MOST_THIN, this.#thin + 1);
      this.#waiting = this.#waiting.filter((_, k) => k % 2 === 1);
    } else if (this.#thin > 1 && now - this.#easySince > EASY_MS) {
      this.#easySince = now;
      this.#thin -= 1;
    }
  }

  async #flush(): Promise<void> {
    if (this.#busy || this.#over || this.#waiting.length === 0) return;
    this.#busy = true;
    const samples = this.#waiting;
    this.#waiting = [];
    const newest = samples.at(-1)?.at ?? 0;
    try {
      const answer = await this.#doing.send(samples);
      if (!this.#over) {
        this.#doing.heard({ answer, lag_ms: this.#doing.now() - newest, thin: this.#thin });
      }
    } catch (error) {
      if (!this.#over) this.#doing.failed(error);
    }
    this.#busy = false;
    void this.#flush();
  }
}
