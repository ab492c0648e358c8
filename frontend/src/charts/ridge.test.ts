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

describe("a trace of a part of its film", () => {
  const t_s = Array.from({ length: 31 }, (_, k) => 270 + k);
  const part: TraceColumns = {
    t_s,
    gust: t_s.map(() => 3),
    shares: Array.from({ length: 5 }, () => t_s.map(() => 0.2)),
    trusted: t_s.map((t) => t !== 280 && t !== 285),
  };

  it("begins at the left margin", () => {
    const { x } = scalesFor(part, 4, size);
    expect(x(270)).toBe(MARGIN.left);
    expect(x(300)).toBe(544 - MARGIN.right);
  });
  it("has weak stretches as long as its samples are apart, and keeps them apart", () => {
    expect(weakStretches(part)).toEqual([
      [279.5, 280.5],
      [284.5, 285.5],
    ]);
  });
});

describe("what is drawn", () => {
  it("never leaves its box, however much it shakes", () => {
    for (const most of [0, 4.9, 5, 9.5, 10]) {
      const rough = { ...trace, gust: trace.gust.map((one) => (one === null ? null : most)) };
      for (const target of [0, 4, 9]) {
        const { y } = scalesFor(rough, target, size);
        for (const gust of [most, target]) {
          expect(y(gust)).toBeGreaterThanOrEqual(MARGIN.top);
          expect(y(gust)).toBeLessThanOrEqual(size.height - MARGIN.bottom);
        }
      }
    }
  });
  it("finds the nearest sample as looking at each of them does", () => {
    const times = [0, 0.4, 0.5, 2, 2.01, 7];
    for (let t = -1; t < 9; t += 0.07) {
      const found = Math.abs((times[nearest(times, t)] ?? NaN) - t);
      expect(found).toBe(Math.min(...times.map((one) => Math.abs(one - t))));
    }
  });
  it("is scaled also where there is no sample, or no room", () => {
    const nothing = { t_s: [], gust: [], shares: [[], [], [], [], []], trusted: [] };
    const { x, y } = scalesFor(nothing, 4, { ...size, width: 0 });
    expect([x(0), y(0)].every(Number.isFinite)).toBe(true);
    expect(ridges(nothing, { x, y }).skyline).toBe("");
    expect(weakStretches(nothing)).toEqual([]);
  });
});

describe("the small ridge of the list", () => {
  const bytes = new Uint8Array(48 * 5).map((_, k) => 20 * ((k % 5) + 1));
  const drawn = smallRidge(btoa(String.fromCharCode(...bytes)), 4, 94, 40);

  it("stands from edge to edge on its foot, every band in front of the one before", () => {
    const tops = drawn?.layers.map(({ path }) => {
      expect(path.startsWith("M0,40L0,")).toBe(true);
      expect(path.endsWith("L94,40Z")).toBe(true);
      return Number(path.split("L")[1]?.split(",")[1]);
    });
    // Drift stands behind all others, so that it is the highest.
    expect(tops).toEqual([20, 24, 28, 32, 36]);
    expect(drawn?.under).toBe(drawn?.layers[0]?.path);
  });
  it("cuts at its top what is over eight gusts", () => {
    const high = btoa(String.fromCharCode(...new Uint8Array(48 * 5).fill(255)));
    const tops = smallRidge(high, 12, 94, 40);
    expect(tops?.targetY).toBe(0);
    expect(tops?.layers[0]?.path).toContain("L0,0L");
  });
});
