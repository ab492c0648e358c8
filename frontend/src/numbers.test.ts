import { describe, expect, it } from "vitest";
import { numbersOf } from "./numbers";
import { freeKey, linesOf } from "./places/plan/drills/keys";

describe("lists typed as text", () => {
  it("give their numbers and leave the rest out", () => {
    expect(numbersOf("24, 25; 29.97 60")).toEqual([24, 25, 29.97, 60]);
    expect(numbersOf("fast, -3, 0, 50")).toEqual([50]);
    expect(numbersOf("")).toEqual([]);
  });
  it("give their lines", () => {
    expect(linesOf(" Knees soft. \n\n Look. ")).toEqual(["Knees soft.", "Look."]);
  });
});

describe("keys of own drills", () => {
  it("are numbered past those that are taken", () => {
    expect(freeKey("orbit", [])).toBe("orbit-own-1");
    expect(freeKey("orbit-own-1", ["orbit-own-1"])).toBe("orbit-own-2");
  });
});
