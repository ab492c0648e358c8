import { createContext, useContext, useSyncExternalStore } from "react";

/** After which the picture stands elsewhere, or begins to move. */
const MOVES = ["play", "playing", "pause", "ended", "seeked", "timeupdate", "loadeddata"];

/** Where the picture is now. Only what follows it re-renders while it plays. */
export class Playhead {
  #t = 0;
  #video: HTMLVideoElement | null = null;
  #loop: { from: number; to: number } | null = null;
  readonly #followers = new Set<() => void>();
  #frame = 0;

  readonly follow = (changed: () => void) => {
    this.#followers.add(changed);
    return () => this.#followers.delete(changed);
  };
  readonly time = () => this.#t;
  readonly playing = () => this.#video !== null && !this.#video.paused && !this.#video.ended;
  readonly loop = () => this.#loop;

  attach(video: HTMLVideoElement | null) {
    cancelAnimationFrame(this.#frame);
    for (const moved of MOVES) this.#video?.removeEventListener(moved, this.#look);
    this.#video = video;
    for (const moved of MOVES) video?.addEventListener(moved, this.#look);
    if (video) this.#look();
  }

  /** See where the picture is, at every frame while it plays; a paused page asks for none. */
  readonly #look = () => {
    const video = this.#video;
    if (!video) return;
    this.#keepInLoop();
    if (video.currentTime !== this.#t) {
      this.#t = video.currentTime;
      this.#tell();
    }
    cancelAnimationFrame(this.#frame);
    if (this.playing()) this.#frame = requestAnimationFrame(this.#look);
  };

  /** Play a stretch over and over, at a rate; null plays all of it once. */
  setLoop(loop: { from: number; to: number } | null, rate = 1) {
    this.#loop = loop;
    if (this.#video) this.#video.playbackRate = Math.min(16, Math.max(0.0625, rate));
    if (loop) {
      this.seek(loop.from);
      this.#start();
    }
    this.#tell();
  }

  seek(t: number) {
    const video = this.#video;
    const end = video && Number.isFinite(video.duration) ? video.duration : Infinity;
    this.#t = Math.max(0, Math.min(t, end));
    if (video) video.currentTime = this.#t;
    this.#tell();
  }

  toggle() {
    const video = this.#video;
    if (!video) return;
    if (video.paused) this.#start();
    else video.pause();
    this.#tell();
  }

  /** Move by whole frames; stops playing. */
  step(frames: number, fps: number) {
    this.#video?.pause();
    // Half a frame in, so that rounding never shows the neighbour.
    const frame = Math.floor(this.#t * fps + 1e-3);
    this.seek((Math.max(0, frame + frames) + 0.5) / fps);
  }

  readonly changed = () => this.#tell();

  /** Play; a pause that comes before the picture moves is no fault. */
  #start() {
    this.#video?.play().catch(() => undefined);
  }

  #keepInLoop() {
    const video = this.#video;
    if (!video || !this.#loop || video.paused) return;
    if (video.currentTime >= this.#loop.to || video.currentTime < this.#loop.from - 0.25) {
      video.currentTime = this.#loop.from;
    }
  }

  #tell() {
    for (const changed of this.#followers) changed();
  }
}

export const PlayheadContext = createContext<Playhead | null>(null);

export function usePlayhead(): Playhead {
  const playhead = useContext(PlayheadContext);
  if (!playhead) throw new Error("usePlayhead needs a PlayheadContext");
  return playhead;
}

export function useTime(): number {
  const playhead = usePlayhead();
  return useSyncExternalStore(playhead.follow, playhead.time);
}

export function usePlaying(): boolean {
  const playhead = usePlayhead();
  return useSyncExternalStore(playhead.follow, playhead.playing);
}

export function useLoop() {
  const playhead = usePlayhead();
  return useSyncExternalStore(playhead.follow, playhead.loop);
}
