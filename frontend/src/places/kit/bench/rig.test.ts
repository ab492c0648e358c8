import { describe, expect, it } from "vitest";
import { boundsOf, dragged, placedAt, placeOf, type RigAsk } from "./rig";
import type { RigPart } from "./types";

const at = (x_mm: number, y_mm: number, z_mm: number) => ({ x_mm, y_mm, z_mm });
const ask: RigAsk = { handle: at(0, 150, 0), weight_at: at(0, 40, -80), placed: [] };

describe("the rig", () => {
  it("keeps a support's usual place until it is moved", () => {
    expect(placeOf(ask, 7, at(1, 2, 3))).toEqual(at(1, 2, 3));
    const moved = placedAt(placedAt(ask, 7, at(9, 9, 9)), 7, at(4, 5, 6));
    expect(placeOf(moved, 7, at(1, 2, 3))).toEqual(at(4, 5, 6));
    expect(moved.placed).toHaveLength(1);
    expect(ask.placed).toHaveLength(0);
  });
  it("is dragged in the side view only, on a grid", () => {
    expect(dragged(at(12, 0, 0), 33, -8)).toEqual(at(12, -10, 35));
  });
  it("is shown whole", () => {
    const part = {
      name: "Camera", mass_g: 1, bare: true, place: at(0, 50, 0),
      size: { width_mm: 10, height_mm: 100, depth_mm: 60 },
    } as RigPart; // prettier-ignore
    expect(boundsOf([part], ask, null)).toEqual({ left: -105, right: 30, low: 0, high: 180 });
  });
});
