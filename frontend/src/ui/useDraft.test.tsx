// @vitest-environment happy-dom
import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { useDraft } from "./useDraft";

type Thing = { name: string; mm: number };
const KEPT: Thing = { name: "Mine", mm: 35 };
const opened = (kept: Thing = KEPT) =>
  renderHook(({ kept }) => useDraft("thing-1", kept), { initialProps: { kept } });

afterEach(() => {
  cleanup();
  sessionStorage.clear();
});

it("is what is kept until something is changed", () => {
  const { result } = opened();
  expect(result.current.value).toEqual(KEPT);
  expect(result.current.changed).toBe(false);
  act(() => result.current.change({ ...KEPT, mm: 50 }));
  expect(result.current).toMatchObject({ value: { mm: 50 }, base: KEPT, changed: true });
  act(() => result.current.change(KEPT));
  expect(result.current.changed).toBe(false);
});

it("outlives the page, until it is dropped", () => {
  const first = opened();
  act(() => first.result.current.change({ ...KEPT, mm: 50 }));
  first.unmount();
  const second = opened();
  expect(second.result.current).toMatchObject({ value: { mm: 50 }, changed: true });
  act(() => second.result.current.drop());
  expect(second.result.current.value).toEqual(KEPT);
  second.unmount();
  expect(opened().result.current.changed).toBe(false);
});

it("tells a change elsewhere from its own, until one is chosen", () => {
  const { result, rerender } = opened();
  act(() => result.current.change({ ...KEPT, mm: 50 }));
  rerender({ kept: { ...KEPT, name: "Theirs" } });
  expect(result.current).toMatchObject({ elsewhere: true, base: KEPT, value: { name: "Mine" } });
  act(() => result.current.insist());
  expect(result.current).toMatchObject({ elsewhere: false, changed: true, value: { mm: 50 } });
  act(() => result.current.drop());
  expect(result.current.value.name).toBe("Theirs");
});

it("is none where elsewhere the same was kept", () => {
  const { result, rerender } = opened();
  const same = { ...KEPT, mm: 50 };
  act(() => result.current.change(same));
  rerender({ kept: same });
  expect(result.current).toMatchObject({ changed: false, elsewhere: false });
});

it("begins anew where what was left cannot be read", () => {
  sessionStorage.setItem("ridgewind-draft-thing-1", "{cut short");
  expect(opened().result.current.value).toEqual(KEPT);
});

it("is there for the page where the browser has no room", () => {
  const full = vi.spyOn(Storage.prototype, "setItem").mockImplementation(() => {
    throw new DOMException("no room", "QuotaExceededError");
  });
  const { result } = opened();
  act(() => result.current.change({ ...KEPT, mm: 50 }));
  expect(result.current.value.mm).toBe(50);
  full.mockRestore();
});
