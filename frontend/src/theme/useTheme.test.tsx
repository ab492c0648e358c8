// @vitest-environment happy-dom
import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { useTheme } from "./useTheme";

let dark = false;
const shown = () => document.documentElement.dataset["theme"];

beforeEach(() => {
  dark = false;
  localStorage.clear();
  vi.stubGlobal("matchMedia", () => ({ matches: dark }));
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

it("is at first as the system is, then as it was chosen", () => {
  dark = true;
  const first = renderHook(useTheme);
  expect([first.result.current[0], shown()]).toEqual(["dusk", "dusk"]);
  act(() => first.result.current[1]());
  expect([first.result.current[0], shown()]).toEqual(["light", "light"]);
  first.unmount();
  expect(renderHook(useTheme).result.current[0]).toBe("light");
});

it("takes no notice of what it does not know", () => {
  localStorage.setItem("ridgewind-theme", "neon");
  expect(renderHook(useTheme).result.current[0]).toBe("light");
});
