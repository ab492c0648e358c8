// @vitest-environment happy-dom
import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, expect, it } from "vitest";
import { useRemembered } from "./useRemembered";

afterEach(() => {
  cleanup();
  sessionStorage.clear();
});

it("is as it was left, each by its own name", () => {
  const first = renderHook(() => useRemembered("order", { by: "name" }));
  expect(first.result.current[0]).toEqual({ by: "name" });
  act(() => first.result.current[1]({ by: "gust" }));
  expect(first.result.current[0]).toEqual({ by: "gust" });
  first.unmount();
  expect(renderHook(() => useRemembered("order", {})).result.current[0]).toEqual({ by: "gust" });
  expect(renderHook(() => useRemembered("other", 3)).result.current[0]).toBe(3);
});

it("begins anew where what was left cannot be read", () => {
  sessionStorage.setItem("ridgewind-order", "{cut");
  expect(renderHook(() => useRemembered("order", 1)).result.current[0]).toBe(1);
});
