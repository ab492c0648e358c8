import { describe, expect, it } from "vitest";
import { CELLS, moved, nameOf, shapeOf } from "./cells";

describe("the cells of a picture", () => {
  it("lie along its longer side", () => {
    expect(shapeOf({ width: 1920, height: 1080 })).toEqual({ across: 6, down: 4 });
    expect(shapeOf({ width: 1080, height: 1920 })).toEqual({ across: 4, down: 6 });
    expect(nameOf(7, 6)).toBe("Row 2, column 2");
  });
  it("are gone through by arrows, and not past the edges", () => {
    expect(moved("ArrowRight", 4, 6, 4)).toBe(5);
    expect(moved("ArrowRight", 5, 6, 4)).toBeNull();
    expect(moved("ArrowDown", 5, 6, 4)).toBe(11);
    expect(moved("ArrowDown", CELLS - 1, 6, 4)).toBeNull();
    expect(moved("ArrowUp", 3, 6, 4)).toBeNull();
    expect(moved("Enter", 3, 6, 4)).toBeNull();
  });
  it("can be left and come back to", () => {
    for (let cell = 0; cell < CELLS; cell++) {
      const to = moved("ArrowLeft", cell, 6, 4);
      if (to !== null) expect(moved("ArrowRight", to, 6, 4)).toBe(cell);
    }
  });
});
