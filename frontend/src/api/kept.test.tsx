// @vitest-environment happy-dom
import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, expect, it } from "vitest";
import { useKeptSince, watchKept } from "./kept";

/** An answer comes in; kept: when it was given, null where the computer answers itself. */
const answer = (kept: string | null) => {
  const headers = new Headers(kept === null ? {} : { "X-Kept": kept });
  void watchKept.onResponse?.({ response: new Response("", { headers }) } as never);
};

afterEach(cleanup);

it("tells since when what is shown was kept, until the computer answers again", () => {
  let drawn = 0;
  const { result } = renderHook(() => (drawn++, useKeptSince()));
  expect(result.current).toBeNull();
  act(() => answer("2026-05-03T10:00:00Z"));
  expect(result.current?.toISOString()).toBe("2026-05-03T10:00:00.000Z");
  const before = drawn;
  act(() => answer("2026-05-03T10:00:00Z"));
  expect(drawn).toBe(before);
  act(() => answer(null));
  expect(result.current).toBeNull();
});

it("tells nobody who is gone", () => {
  const { unmount } = renderHook(() => useKeptSince());
  unmount();
  expect(() => answer("2026-05-03T11:00:00Z")).not.toThrow();
  answer(null);
});
