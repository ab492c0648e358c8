// @vitest-environment happy-dom
import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { usePlaying } from "./usePlaying";

let still = false;
let seeing: ((found: { isIntersecting: boolean }[]) => void) | null = null;
let frames = new Map<number, (at: number) => void>();
let now = 0;

beforeEach(() => {
  [still, seeing, now] = [false, null, 0];
  frames = new Map();
  let next = 1;
  vi.stubGlobal("matchMedia", () => ({ matches: still }));
  vi.stubGlobal("requestAnimationFrame", (act: (at: number) => void) => (frames.set(next, act), next++)); // prettier-ignore
  vi.stubGlobal("cancelAnimationFrame", (id: number) => frames.delete(id));
  vi.stubGlobal(
    "IntersectionObserver",
    class {
      constructor(told: typeof seeing) {
        seeing = told;
      }
      observe() {}
      disconnect() {}
    },
  );
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

/** So many seconds pass, at sixty frames each. */
function pass(seconds: number) {
  const end = now + 1000 * seconds;
  act(() => {
    while (now < end) {
      now += 1000 / 60;
      const due = [...frames.values()];
      frames.clear();
      due.forEach((draw) => draw(now));
    }
  });
}
const see = (isIntersecting: boolean) => act(() => seeing?.([{ isIntersecting }]));
const opened = (more: Partial<Parameters<typeof usePlaying>[1]> = {}) => {
  const figureRef = { current: document.createElement("div") };
  return renderHook(() => usePlaying(figureRef, { seconds: 2, cycle: false, moves: true, ...more }))
    .result;
};

it("plays by itself while it is seen, rests at its end, and begins again", () => {
  const figure = opened();
  expect(figure.current).toMatchObject({ share: 0, playing: true });
  pass(1);
  expect(figure.current.share).toBe(0); // nobody sees it yet
  see(true);
  pass(1);
  expect(figure.current.share).toBeCloseTo(0.5, 1);
  pass(1.4);
  expect(figure.current.share).toBe(1);
  pass(1);
  expect(figure.current.share).toBeGreaterThan(0.1);
  expect(figure.current.share).toBeLessThan(0.5);
});

it("goes round without a rest where it is a cycle", () => {
  const figure = opened({ cycle: true });
  see(true);
  pass(3);
  expect(figure.current.share).toBeCloseTo(0.5, 1);
});

it("costs nothing while it is out of sight, and goes on from where it was", () => {
  const figure = opened();
  see(true);
  pass(1);
  see(false);
  expect(frames.size).toBe(0);
  const share = figure.current.share;
  pass(5);
  expect(figure.current.share).toBe(share);
  see(true);
  pass(0.2);
  expect(figure.current.share).toBeCloseTo(share + 0.1, 1);
});

it("is stopped, taken up again, and stopped by who looks for a moment", () => {
  const figure = opened();
  see(true);
  pass(0.5);
  act(() => figure.current.toggle());
  const share = figure.current.share;
  pass(1);
  expect(figure.current).toMatchObject({ share, playing: false });
  act(() => figure.current.toggle());
  pass(0.5);
  expect(figure.current.share).toBeGreaterThan(share);
  act(() => figure.current.seek(0.9));
  pass(1);
  expect(figure.current).toMatchObject({ share: 0.9, playing: false });
});

it("stands at its end where no motion is wanted, or where nothing moves", () => {
  expect(opened({ moves: false }).current).toMatchObject({ share: 1, playing: false });
  cleanup();
  still = true;
  const figure = opened();
  see(true);
  pass(1);
  expect(figure.current).toMatchObject({ share: 1, playing: false });
  act(() => figure.current.toggle());
  pass(0.5);
  expect(figure.current.playing).toBe(true); // asked for, it plays
});
