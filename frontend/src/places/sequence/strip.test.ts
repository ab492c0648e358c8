import { describe, expect, it } from "vitest";
import { GAP, gridOf, moved, placeAt } from "./strip";

describe("a strip of tiles", () => {
  it("fills its width", () => {
    for (const width of [358, 700, 1216]) {
      const grid = gridOf(width, 40);
      expect(grid.columns * grid.width - GAP).toBeCloseTo(width, 6);
    }
    expect(gridOf(100, 40).columns).toBe(1);
  });
  it("finds every tile at its own middle, and the nearest outside", () => {
    const grid = gridOf(1216, 40);
    for (let at = 0; at < 20; at++) {
      const x = ((at % grid.columns) + 0.5) * grid.width;
      const y = (Math.floor(at / grid.columns) + 0.5) * grid.height;
      expect(placeAt(grid, x, y, 20)).toBe(at);
    }
    expect(placeAt(grid, -50, -50, 20)).toBe(0);
    expect(placeAt(grid, 5000, 5000, 20)).toBe(19);
  });
  it("moves one and keeps the others in order", () => {
    expect(moved(["a", "b", "c", "d"], 0, 2)).toEqual(["b", "c", "a", "d"]);
    expect(moved(["a", "b", "c", "d"], 3, 0)).toEqual(["d", "a", "b", "c"]);
    expect(moved(["a"], 5, 0)).toEqual(["a"]);
  });
});
