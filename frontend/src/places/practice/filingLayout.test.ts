import { describe, expect, it } from "vitest";
import { dropOf, layOut } from "./filingLayout";

const TAKES = [0, 1, 2].map((position) => ({
  position,
  state: position === 2 ? ("planned" as const) : ("filmed" as const),
  take_id: position === 1 ? 7 : null,
  take_name: position === 1 ? "C0007" : null,
}));
const film = (take_id: number, begun_s: number | null) => ({
  take_id,
  begun_s,
  name: `C${take_id}`,
  length_s: 5,
  has_slate: false,
});

describe("layOut", () => {
  it("spreads takes evenly, and films in the order of their clocks", () => {
    const { takes, films } = layOut({ films: [film(3, 200), film(4, 100)] }, TAKES, 320);
    expect(takes.map((one) => one.x)).toEqual([60, 160, 260]);
    expect(takes.map((one) => one.film?.name)).toEqual([undefined, "C0007", undefined]);
    expect(takes.map((one) => one.filmed)).toEqual([true, true, false]);
    expect(films.map((one) => [one.id, one.x])).toEqual([
      [4, 85],
      [3, 235],
    ]);
  });
  it("copes with nothing at all", () => {
    expect(layOut({ films: [] }, [], 300)).toEqual({ takes: [], films: [] });
  });
});

describe("dropOf", () => {
  const { takes } = layOut({ films: [] }, TAKES, 320);
  it("finds the take under the pointer, and none between", () => {
    expect(dropOf({ x: 155, y: 30 }, takes, 54)).toBe(1);
    expect(dropOf({ x: 110, y: 30 }, takes, 54)).toBeUndefined();
  });
  it("lets a film go in the row of loose ones", () => {
    expect(dropOf({ x: 160, y: 70 }, takes, 54)).toBeNull();
    expect(dropOf({ x: 5, y: 10 }, [], 54)).toBeUndefined();
  });
});
