// @vitest-environment happy-dom
import { afterEach, expect, it, vi } from "vitest";
import { reloadedLately } from "../ui/reloadedLately";
import { kept, keptInTab } from "./browserStore";

afterEach(() => vi.unstubAllGlobals());

it("keeps, and takes away", () => {
  expect(kept.set("a", "1")).toBe(true);
  expect(kept.get("a")).toBe("1");
  kept.set("a", null);
  expect(kept.get("a")).toBeNull();
});

it("keeps nothing, and breaks nothing, where the browser refuses even to be asked", () => {
  const refusing = () => {
    throw new DOMException("denied", "SecurityError");
  };
  for (const name of ["localStorage", "sessionStorage"])
    vi.spyOn(globalThis, name as "localStorage", "get").mockImplementation(refusing);
  for (const store of [kept, keptInTab]) {
    expect(store.get("a")).toBeNull();
    expect(store.set("a", "1")).toBe(false);
  }
  vi.restoreAllMocks();
});

it("reloads once for a missing file, and again only after a while", () => {
  sessionStorage.clear();
  expect(reloadedLately(1_000_000)).toBe(false);
  expect(reloadedLately(1_005_000)).toBe(true);
  expect(reloadedLately(1_100_000)).toBe(false);
});
