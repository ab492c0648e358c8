import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { Playhead } from "./playhead";

/** What a playhead needs of a film's element. */
function film(duration = 10) {
  const told = new Set<() => void>();
  const tell = () => told.forEach((one) => one());
  return {
    told,
    tell,
    addEventListener: (_: string, one: () => void) => told.add(one),
    removeEventListener: (_: string, one: () => void) => told.delete(one),
    currentTime: 0,
    duration,
    paused: true,
    ended: false,
    playbackRate: 1,
    play() {
      this.paused = false;
      tell();
      return Promise.resolve();
    },
    pause() {
      this.paused = true;
      tell();
    },
  };
}
const attached = (video: ReturnType<typeof film>) => {
  const playhead = new Playhead();
  playhead.attach(video as unknown as HTMLVideoElement);
  return playhead;
};

let next: (() => void) | null = null;
beforeEach(() => {
  vi.stubGlobal("requestAnimationFrame", (frame: () => void) => ((next = frame), 1));
  vi.stubGlobal("cancelAnimationFrame", () => (next = null));
});
afterEach(() => vi.unstubAllGlobals());

test("it goes nowhere outside of the film", () => {
  const video = film(10);
  const playhead = attached(video);
  playhead.seek(12);
  expect([playhead.time(), video.currentTime]).toEqual([10, 10]);
  playhead.seek(-1);
  expect(playhead.time()).toBe(0);
});

test("before the film's length is known it stays where it was put", () => {
  const playhead = attached(film(NaN));
  playhead.seek(12);
  expect(playhead.time()).toBe(12);
});

test.each([24, 25, 30, 59.94, 240])(
  "each step at %s a second is one frame, there and back",
  (fps) => {
    const playhead = attached(film(10));
    const shown = () => Math.floor(playhead.time() * fps);
    for (let frame = 1; frame <= 50; frame += 1) {
      playhead.step(1, fps);
      expect(shown()).toBe(frame);
    }
    for (let frame = 49; frame >= 0; frame -= 1) {
      playhead.step(-1, fps);
      expect(shown()).toBe(frame);
    }
    playhead.step(-1, fps);
    expect(shown()).toBe(0);
  },
);

test("a step stops what plays", () => {
  const video = film();
  const playhead = attached(video);
  playhead.toggle();
  expect(playhead.playing()).toBe(true);
  playhead.step(1, 30);
  expect(playhead.playing()).toBe(false);
});

test("a loop begins where it begins, and comes back there from its end and from elsewhere", () => {
  const video = film();
  const playhead = attached(video);
  playhead.setLoop({ from: 2, to: 4 }, 0.4);
  expect([video.currentTime, video.playbackRate, playhead.playing()]).toEqual([2, 0.4, true]);
  video.currentTime = 4.01;
  next?.();
  expect(video.currentTime).toBe(2);
  video.currentTime = 1; // somebody went there by the browser's own bar
  next?.();
  expect(video.currentTime).toBe(2);
  playhead.setLoop(null);
  video.currentTime = 6;
  next?.();
  expect([video.currentTime, playhead.loop(), video.playbackRate]).toEqual([6, null, 1]);
});

test("a paused film may be looked at outside of its loop", () => {
  const video = film();
  const playhead = attached(video);
  playhead.setLoop({ from: 2, to: 4 });
  playhead.toggle();
  video.currentTime = 8;
  video.tell();
  expect([video.currentTime, playhead.time()]).toEqual([8, 8]);
});

test("rates that a browser refuses are brought to those that it takes", () => {
  const video = film();
  attached(video).setLoop({ from: 0, to: 1 }, 0.01);
  expect(video.playbackRate).toBe(0.0625);
});

test("who follows is told when the picture moves, and no more once they have left", () => {
  const video = film();
  const playhead = attached(video);
  const told = vi.fn();
  const leave = playhead.follow(told);
  video.tell();
  expect(told).not.toHaveBeenCalled();
  video.currentTime = 0.5;
  video.tell();
  expect([told.mock.calls.length, playhead.time()]).toEqual([1, 0.5]);
  leave();
  playhead.seek(3);
  expect(told).toHaveBeenCalledTimes(1);
});

test("a page asks for frames while the film plays, and for none while it stands", () => {
  const video = film();
  const playhead = attached(video);
  expect(next).toBe(null);
  playhead.toggle();
  expect(next).not.toBe(null);
  playhead.toggle();
  expect(next).toBe(null);
});

test("a film that is taken away is followed no more", () => {
  const video = film();
  const playhead = attached(video);
  playhead.toggle();
  playhead.attach(null);
  expect([next, video.told.size]).toEqual([null, 0]);
  playhead.toggle();
  expect(playhead.playing()).toBe(false);
});
