import { expect, it } from "vitest";
import { freeKey, linesOf } from "./keys";

it("gives a copy the first key that is free, also a copy of a copy", () => {
  expect(freeKey("orbit", ["orbit"])).toBe("orbit-own-1");
  expect(freeKey("orbit", ["orbit", "orbit-own-1", "orbit-own-3"])).toBe("orbit-own-2");
  expect(freeKey("orbit-own-1", ["orbit", "orbit-own-1"])).toBe("orbit-own-2");
});

it("reads a list from lines, without the empty ones", () => {
  expect(linesOf("  Breathe out \n\n\tKnees soft\n ")).toEqual(["Breathe out", "Knees soft"]);
  expect(linesOf("")).toEqual([]);
});
