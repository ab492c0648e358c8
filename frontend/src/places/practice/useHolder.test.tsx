// @vitest-environment happy-dom
import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import type { Place } from "../../api/stage";
import { useHolder } from "./useHolder";
import type { Runner } from "./useRunner";

type Answer = { held: boolean; by: string; wishes: string[] };
const stage = {
  told: [] as { place: Place; take: boolean }[],
  answer: (): Promise<Answer> => Promise.resolve({ held: true, by: "", wishes: [] }),
  left: 0,
};
vi.mock("../../api/stage", () => ({
  tellStage: (_: number, place: Place, take: boolean) => {
    stage.told.push({ place, take });
    return stage.answer();
  },
  leaveStage: () => Promise.resolve((stage.left += 1)),
}));

const holding = (): Promise<Answer> => Promise.resolve({ held: true, by: "", wishes: [] });
const away = (): Promise<Answer> => Promise.reject(new Error("nobody answers"));

beforeEach(() => {
  Object.assign(stage, { told: [], answer: holding, left: 0 });
  vi.useFakeTimers();
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

function opened(running = true) {
  const acts = { pause: vi.fn(), skip: vi.fn(), go: vi.fn() };
  const runner = { at: 2, running, elapsed: -0.5, grown: 0, canUndo: false, ...acts };
  const view = renderHook(
    (props) => useHolder(1, props.runner as unknown as Runner, { speed: 1, slates: true }),
    { initialProps: { runner } },
  );
  const pass = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));
  return { view, acts, pass, runner };
}

it("says where it is, more often while it runs, and at once where that changes", async () => {
  const { view, pass, runner } = opened();
  await pass(2000);
  const often = stage.told.length;
  expect(stage.told[0]?.place).toMatchObject({ at: 2, running: true, elapsed_s: 0 });
  view.rerender({ runner: { ...runner, running: false } });
  await pass(200);
  expect(stage.told.at(-1)?.place.running).toBe(false);
  stage.told.length = 0;
  await pass(2400);
  expect(stage.told.length).toBeLessThan(often / 1.5);
});

it("does what other screens wish, in their order", async () => {
  const { pass, acts } = opened();
  stage.answer = () => Promise.resolve({ held: true, by: "", wishes: ["pause", "skip"] });
  await pass(210);
  expect(acts.pause).toHaveBeenCalledTimes(1);
  expect(acts.skip).toHaveBeenCalledTimes(1);
  expect(acts.go).not.toHaveBeenCalled();
});

it("pauses where another screen has it, says no more, and takes it back when asked", async () => {
  const { view, pass, acts } = opened();
  await pass(210);
  stage.answer = () => Promise.resolve({ held: false, by: "Pocket", wishes: [] });
  await pass(600);
  expect(acts.pause).toHaveBeenCalledTimes(1);
  expect(view.result.current.takenBy).toBe("Pocket");
  const before = stage.told.length;
  await pass(3000);
  expect(stage.told).toHaveLength(before);
  stage.answer = holding;
  act(() => view.result.current.takeBack());
  await pass(210);
  expect(stage.told.at(-1)?.take).toBe(true);
  expect(view.result.current.takenBy).toBe("");
});

it("claims it once, and for as long as nobody answered that claim", async () => {
  const { pass } = opened();
  stage.answer = away;
  await pass(1000);
  expect(stage.told.length).toBeGreaterThan(2);
  expect(stage.told.every((one) => one.take)).toBe(true);
  stage.answer = holding;
  await pass(1000);
  const takes = stage.told.map((one) => one.take);
  expect(takes.slice(takes.indexOf(false))).not.toContain(true);
});

it("leaves when the page does", async () => {
  const { view, pass } = opened();
  await pass(210);
  window.dispatchEvent(new Event("pagehide"));
  expect(stage.left).toBe(1);
  view.unmount();
  expect(stage.left).toBe(2);
  await pass(1000);
  window.dispatchEvent(new Event("pagehide"));
  expect(stage.left).toBe(2);
});
