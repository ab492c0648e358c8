// @vitest-environment happy-dom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, cleanup, renderHook } from "@testing-library/react";
import type { ReactNode } from "react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { client } from "./client";
import { usePulse, useTakes } from "./takes";

const FILTER = { sort: "imported", descending: true } as const;
const IDLE_MS = 8000;

/** A server whose state has a stamp; how many lists it was asked for. */
let kept = "";
let lists = 0;
let held: (() => void)[] | null = null;

beforeEach(() => {
  vi.useFakeTimers();
  [kept, lists, held] = ["one", 0, null];
  vi.spyOn(client, "GET").mockImplementation(((path: string) => {
    const stamp = kept;
    if (path === "/api/pulse") return answered({ stamp, all: 0, busy: 0, stale: 0 });
    lists += 1;
    const page = { stamp, takes: [], total: 0, all: 0, busy: 0, stale: 0 };
    const waits = held;
    if (waits === null) return answered(page);
    kept = "two"; // written just after the list was read
    return new Promise((go) => waits.push(() => go(answered(page))));
  }) as never);
});

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
  vi.useRealTimers();
});

const answered = (data: object) =>
  Promise.resolve({ data, response: new Response("{}", { status: 200 }) });
const passing = (ms: number) => act(async () => void (await vi.advanceTimersByTimeAsync(ms)));

function opened() {
  const cache = new QueryClient();
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={cache}>{children}</QueryClientProvider>
  );
  const { result } = renderHook(() => [useTakes(FILTER), usePulse()] as const, { wrapper });
  return () => result.current[0].data?.pages.map((page) => page.stamp);
}

it("reads the list once while nothing changes", async () => {
  const shown = opened();
  await passing(5 * IDLE_MS);
  expect(shown()).toEqual(["one"]);
  expect(lists).toBe(1);
});

it("reads the list again after a change, once", async () => {
  const shown = opened();
  await passing(IDLE_MS);
  kept = "two";
  await passing(5 * IDLE_MS);
  expect(shown()).toEqual(["two"]);
  expect(lists).toBe(2);
});

it("reads a list again that was read before a change of which the first pulse tells", async () => {
  held = [];
  const shown = opened();
  await passing(0);
  held.splice(0).forEach((go) => go());
  held = null;
  await passing(0);
  expect(shown()).toEqual(["one"]);
  await passing(5 * IDLE_MS);
  expect(shown()).toEqual(["two"]);
  expect(lists).toBe(2);
});

it("reads a slow list to its end, however often something changes meanwhile", async () => {
  const aborted: boolean[] = [];
  const shown = opened();
  await passing(IDLE_MS);
  const before = lists;
  let busy = 1;
  vi.mocked(client.GET).mockImplementation(((path: string, asked: { signal?: AbortSignal }) => {
    if (path === "/api/pulse") {
      kept = `${kept}+`; // every 600 ms another take is measured
      return answered({ stamp: kept, all: 0, busy, stale: 0 });
    }
    if (path !== "/api/takes") return answered({});
    lists += 1;
    asked.signal?.addEventListener("abort", () => aborted.push(true));
    const page = { stamp: kept, takes: [], total: 0, all: 0, busy, stale: 0 };
    return new Promise((go) => setTimeout(() => go(answered(page)), 2000));
  }) as never);
  await passing(20_000);
  busy = 0;
  expect(aborted).toEqual([]);
  expect(shown()).not.toEqual(["one"]);
  expect(lists - before).toBeLessThan(12);
});
