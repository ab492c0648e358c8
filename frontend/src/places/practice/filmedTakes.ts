import type { TakeResult } from "../../api/practice";
import type { Feed } from "../../camera/feed";
import type { Recording } from "../../camera/recording";

/** Where a take's film is: rolling, on its way, being measured; or what came of it. */
export type Told = { at: "rolling" | "sending" | "measuring" } | { at: "told"; result: TakeResult };

/** What is asked of the world. send: brings a film in, gives its take. file: under a planned take. */
export type Ways = {
  record: (stream: MediaStream, onFilm: (film: File) => void) => Recording;
  send: (film: File) => Promise<number>;
  file: (position: number, takeId: number) => void;
  result: (position: number, signal: AbortSignal) => Promise<TakeResult>;
  pause: (ms: number) => Promise<void>;
};

const LOOK_MS = 300;
/** So long a film that comes by itself is waited for, once its take has ended. */
const COMING_MS = 45_000;
/** Longer than any take of a session takes to be measured: then something is wrong. */
const LONGEST_MS = 60_000;

const FAILED: TakeResult = {
  state: "failed",
  take_id: null,
  gust: null,
  target: 0,
  passed: null,
  better_by: null,
  cause: "",
  change: "",
  figure: "Its film could not be brought in.",
  advice: "",
};

/**
 * Films of a session's takes by a camera that is connected: each is rolled with its take, brought
 * in, filed and measured while the shooter rests. Kept outside of React, so that a film under way
 * outlives a drawing.
 */
export class FilmedTakes {
  readonly #ways: Ways;
  #stopped = new AbortController();
  readonly #listeners = new Set<() => void>();
  #told: ReadonlyMap<number, Told> = new Map();
  #feed: Feed | null = null;
  #rolling: { position: number; recording: Recording } | null = null;

  constructor(ways: Ways) {
    this.#ways = ways;
  }

  readonly subscribe = (listener: () => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };
  readonly snapshot = () => this.#told;

  /** Film with a feed from now on; null with none. */
  use(feed: Feed | null) {
    this.#feed = feed;
  }

  /** A take rolls. */
  begin(position: number) {
    if (!this.#feed) return;
    const recording = this.#ways.record(this.#feed.stream, (film) => {
      void this.#bringIn(position, film);
    });
    this.#rolling = { position, recording };
    this.#tell(position, { at: "rolling" });
  }

  /** The take has ended: its film is wanted. */
  end() {
    const rolling = this.#rolling;
    this.#rolling = null;
    if (!rolling) return;
    this.#tell(rolling.position, { at: "sending" });
    rolling.recording.stop();
  }

  /** The take has ended, and its film comes by itself, or not. before: the film that stood under it
   * until now, where it is a repeated one. */
  expect(position: number, before: number | null) {
    if (this.isAwaited(position)) return;
    this.#tell(position, { at: "sending" });
    void this.#come(position, before);
  }

  /** The take was broken off: its film is forgotten. */
  drop() {
    const rolling = this.#rolling;
    this.#rolling = null;
    if (!rolling) return;
    rolling.recording.drop();
    this.#tell(rolling.position, null);
  }

  /** Whether what came of a take is still to come. */
  isAwaited(position: number): boolean {
    const told = this.#told.get(position);
    return told !== undefined && told.at !== "told";
  }

  /** What rolls is dropped, and nobody waits for a result; a film on its way is brought in and filed
   * all the same. */
  close() {
    this.drop();
    this.#stopped.abort();
    this.#stopped = new AbortController();
  }

  async #bringIn(position: number, film: File) {
    const { signal } = this.#stopped;
    try {
      const takeId = await this.#ways.send(film);
      this.#ways.file(position, takeId);
      this.#tell(position, { at: "measuring" });
      this.#tell(position, { at: "told", result: await this.#measured(position, signal) });
    } catch {
      if (!signal.aborted) this.#tell(position, { at: "told", result: FAILED });
    }
  }

  async #come(position: number, before: number | null) {
    const { signal } = this.#stopped;
    try {
      for (let waited = 0; waited < COMING_MS; waited += LOOK_MS) {
        const result = await this.#ways.result(position, signal);
        const ended = result.state === "told" || result.state === "failed";
        if (ended && result.take_id !== before) {
          return this.#tell(position, { at: "told", result });
        }
        await this.#ways.pause(LOOK_MS);
      }
    } catch {
      // The server is away, or the page was left: it is told where it is filed.
    }
    this.#tell(position, null);
  }

  async #measured(position: number, signal: AbortSignal): Promise<TakeResult> {
    for (let waited = 0; ; waited += LOOK_MS) {
      const result = await this.#ways.result(position, signal);
      if (result.state === "told" || result.state === "failed") return result;
      if (waited >= LONGEST_MS) throw new Error("it takes too long");
      await this.#ways.pause(LOOK_MS);
    }
  }

  #tell(position: number, told: Told | null) {
    const next = new Map(this.#told);
    if (told) next.set(position, told);
    else next.delete(position);
    this.#told = next;
    this.#listeners.forEach((listener) => listener());
  }
}
