import { expect, test } from "vitest";
import type { FigureFrame } from "../api/figures";
import { between, boundsOf, closed, corners, frameAt, hull, limb, nearness, seen } from "./project";

const frame = (z: number): FigureFrame => ({
  joints: [[0, 1, z], [0.2, 0, z]], camera: [0, 1.2, z + 0.4], yaw_deg: z * 10, tilt_deg: 0,
  roll_deg: 0, dots: [[0, 1, z]], strap: [], props: [],
}); // prettier-ignore

test("each side sees the body as it should", () => {
  expect(seen([0.2, 1.5, 0.4], "side")).toEqual([0.4, -1.5]);
  expect(seen([0.2, 1.5, 0.4], "front")).toEqual([-0.2, -1.5]);
  expect(seen([0.2, 1.5, 0.4], "above")).toEqual([0.2, -0.4]);
  expect(nearness([0.2, 1.5, 0.4], "side")).toBe(0.2);
});

test("between two frames everything is half way", () => {
  const half = between(frame(0), frame(2), 0.5);
  expect(half.camera[2]).toBeCloseTo(1.4);
  expect(half.yaw_deg).toBe(10);
  expect(half.joints[0]?.[2]).toBe(1);
});

test("a move ends at its last frame, a cycle goes on to its first", () => {
  const frames = [frame(0), frame(1), frame(2)];
  expect(frameAt(frames, 1, false)?.yaw_deg).toBe(20);
  expect(frameAt(frames, 0.5, false)?.yaw_deg).toBe(10);
  expect(frameAt(frames, 5 / 6, true)?.yaw_deg).toBeCloseTo(10);
  expect(frameAt([], 0, false)).toBeUndefined();
});

test("a hull leaves inner points out, and a limb is closed", () => {
  const square = hull([[0, 0], [1, 0], [1, 1], [0, 1], [0.5, 0.5]]); // prettier-ignore
  expect(square).toHaveLength(4);
  expect(limb([0, 0], [1, 0], 0.1, 0.05)).toMatch(/^M.*Z$/);
  expect(closed([])).toBe("");
});

test("a box that is turned a quarter changes its sides", () => {
  const turned = corners([0, 0, 0], [0.1, 0.2, 0.5], 0, 90, 0, 0);
  expect(Math.max(...turned.map(([x]) => x))).toBeCloseTo(0.5);
  expect(Math.max(...turned.map(([, , z]) => z))).toBeCloseTo(0.1);
});

test("a drawing reaches from the ground over the head", () => {
  const bounds = boundsOf([frame(0), frame(1)], "side", 1.9);
  expect(bounds.top + bounds.height).toBeGreaterThan(0);
  expect(bounds.height).toBeGreaterThanOrEqual(1.9);
  expect(bounds.left).toBeLessThan(0);
});

const SOME: [number, number, number][] = [
  [0.3, 1.2, -0.4], [-0.2, 0.1, 0.9], [0, 0, 0], [1, 1, 1],
]; // prettier-ignore

test("two sides and how near things are tell all of a place", () => {
  for (const [x, y, z] of SOME) {
    for (const view of ["side", "front", "above"] as const) {
      const [right, down] = seen([x, y, z], view);
      const length = Math.hypot(right, down, nearness([x, y, z], view));
      expect(length).toBeCloseTo(Math.hypot(x, y, z));
    }
  }
});

test("between is the one at nothing, the other at all, and lies on the way", () => {
  const [a, b] = [frame(0), frame(3)];
  expect(between(a, b, 0)).toEqual(a);
  expect(between(a, b, 1).yaw_deg).toBeCloseTo(b.yaw_deg);
  for (let share = 0; share <= 1; share += 0.1) {
    const { camera } = between(a, b, share);
    expect(camera[2]).toBeCloseTo(0.4 + 3 * share);
  }
});

test("a move is drawn without a jump, a cycle also where it begins again", () => {
  const frames = [frame(0), frame(1), frame(2), frame(1)];
  const at = (share: number, cycle: boolean) => frameAt(frames, share, cycle)?.camera[2] ?? NaN;
  for (const cycle of [false, true]) {
    for (let share = 0; share < 0.999; share += 0.001) {
      expect(Math.abs(at(share + 0.001, cycle) - at(share, cycle))).toBeLessThan(0.01);
    }
  }
  expect(at(1, true)).toBeCloseTo(at(0, true));
});

test("a hull holds every point, turns one way, and is its own hull", () => {
  const points = Array.from({ length: 40 }, (_, k) => [
    Math.sin(12.9898 * k) * 3, Math.cos(78.233 * k) * 2,
  ] as const); // prettier-ignore
  const around = hull(points);
  const sides = around.map((one, k) => [one, around[(k + 1) % around.length] ?? one] as const);
  for (const [a, b] of sides)
    for (const [x, y] of points)
      expect((b[0] - a[0]) * (y - a[1]) - (b[1] - a[1]) * (x - a[0])).toBeGreaterThan(-1e-9);
  expect(hull(around)).toEqual(around);
  expect(hull([[1, 1]])).toEqual([]);
});

test("a box keeps its size however it is turned", () => {
  for (const [yaw, tilt, roll] of [[0, 0, 0], [30, -20, 10], [170, 45, -90]] as const) {
    const box = corners([1, 2, 3], [0.1, 0.2, 0.3], 0, yaw, tilt, roll);
    expect(box).toHaveLength(8);
    for (const [x, y, z] of box)
      expect(Math.hypot(x - 1, y - 2, z - 3)).toBeCloseTo(Math.hypot(0.1, 0.2, 0.3));
  } // prettier-ignore
  const ahead = corners([0, 0, 0], [0, 0, 0], 1, 90, 0, 0)[0] ?? [0, 0, 0];
  expect(ahead.map((one) => Math.round(one * 1000) / 1000 + 0)).toEqual([1, 0, 0]);
});

test("every point of a figure lies within its bounds, from each side", () => {
  const frames = [frame(-1), frame(2)];
  for (const view of ["side", "front", "above"] as const) {
    const { left, top, width, height } = boundsOf(frames, view, 0.1);
    for (const point of frames.flatMap((one) => [...one.joints, one.camera])) {
      const [x, y] = seen(point as [number, number, number], view);
      expect(x).toBeGreaterThan(left);
      expect(x).toBeLessThan(left + width);
      expect(y).toBeGreaterThan(top);
      expect(y).toBeLessThan(top + height);
    }
  }
});
