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
