import { describe, expect, it } from "vitest";
import type { TraceColumns } from "../api/client";
import { gustAt, MARGIN, nearest, ridges, scalesFor, weakStretches } from "./ridge";
import { smallRidge } from "./smallRidge";

const trace: TraceColumns = {
  t_s: [0, 1, 2, 3, 4],
  gust: [2, 4, 6, null, 2],
  shares: [
    [0.2, 0.2, 0.2, 0, 0.2],
    [0.2, 0.2, 0.2, 0, 0.2],
    [0.2, 0.2, 0.2, 0, 0.2],
    [0.2, 0.2, 0.2, 0, 0.2],
    [0.2, 0.2, 0.2, 0, 0.2],
  ],
  trusted: [true, true, false, false, true],
};
const size = { width: 544, height: 230, margin: MARGIN };

describe("scales", () => {
  it("put the first moment at the left margin and the last at the right", () => {
    const { x } = scalesFor(trace, 4, size);
    expect(x(0)).toBe(MARGIN.left);
    expect(x(4)).toBe(544 - MARGIN.right);
  });
  it("keep a target above everything in sight", () => {
    expect(scalesFor(trace, 8, size).y.domain()[1]).toBeGreaterThan(8);
  });
});

describe("ridges", () => {
  it("stack from drift at the back to buzz in front, breaking where nothing is known", () => {
    const { layers, skyline } = ridges(trace, scalesFor(trace, 4, size));
    expect(layers.map((layer) => layer.name)).toEqual(["drift", "sway", "step", "jitter", "buzz"]);
    expect(skyline.match(/M/g)).toHaveLength(2);
  });
});

describe("times", () => {
  it("find the nearest sample", () => {
    expect(nearest([0, 1, 2], 1.4)).toBe(1);
    expect(nearest([0, 1, 2], 9)).toBe(2);
    expect(nearest([], 1)).toBe(-1);
  });
  it("read the gust there, null where it was not measured", () => {
    expect(gustAt(trace, 1.1)).toBe(4);
    expect(gustAt(trace, 3)).toBeNull();
  });
  it("join neighbouring weak samples into one stretch", () => {
    expect(weakStretches(trace)).toEqual([[1.5, 3.5]]);
  });
});

describe("small ridge", () => {
  it("refuses bytes of another length", () => {
    expect(smallRidge(btoa("short"), 4, 100, 40)).toBeNull();
  });
  it("puts the target line at its height", () => {
    const bytes = String.fromCharCode(...new Uint8Array(48 * 5).fill(100));
    expect(smallRidge(btoa(bytes), 4, 100, 40)?.targetY).toBe(20);
  });
});
