// @vitest-environment happy-dom
import { act, renderHook } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import type { LiveSetting } from "../api/live";
import { beginRun, type LiveRun } from "./liveRun";
import { useLive } from "./useLive";

vi.mock("./liveRun", () => ({ beginRun: vi.fn() }));
vi.mock("./liveTone", () => ({
  LiveTone: class {
    start() {}
    stop() {}
    set() {}
  },
}));

const SETTING = { target: 4, screen: "laptop", focal_eq_mm: 26 } as unknown as LiveSetting;
let arrives: (run: LiveRun) => void;
let signal: AbortSignal;
const late = { stream: null, stop: vi.fn(() => Promise.resolve(null)) };

beforeEach(() => {
  late.stop.mockClear();
  vi.mocked(beginRun).mockImplementation((_source, _setting, _told, left) => {
    signal = left;
    return new Promise((resolve) => (arrives = resolve));
  });
});

it("stops a camera that answers after the page was left", async () => {
  const { result, unmount } = renderHook(() => useLive(false));
  act(() => result.current.start("camera", SETTING));
  expect(result.current.state).toBe("begins");
  unmount();
  expect(signal.aborted).toBe(true);
  await act(async () => arrives(late));
  expect(late.stop).toHaveBeenCalledOnce();
});

it("stops one that answers after it was stopped, and is off meanwhile", async () => {
  const { result } = renderHook(() => useLive(false));
  act(() => result.current.start("sensor", SETTING));
  act(() => result.current.stop());
  expect(result.current.state).toBe("off");
  await act(async () => arrives(late));
  expect(late.stop).toHaveBeenCalledOnce();
  expect(result.current.state).toBe("off");
});

it("keeps one that answers while it is waited for", async () => {
  const { result } = renderHook(() => useLive(false));
  act(() => result.current.start("camera", SETTING));
  await act(async () => arrives(late));
  expect(result.current.state).toBe("runs");
  expect(late.stop).not.toHaveBeenCalled();
});
