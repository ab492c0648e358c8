import { expect, it } from "vitest";
import type { Problem } from "../../../api/kit";
import { across, halfView, heading, MOVE_OPTIONS, MOVES } from "./moves";
import { problemIn } from "./panel";
import type { Move } from "./types";

const problems = [
  { panel: "move", field: "amount", message: "Too far." },
  { panel: "rig", field: "amount", message: "Too heavy." },
] as Problem[];

it("finds the message of a field of its own panel", () => {
  expect(problemIn(problems, "move", "amount")).toBe("Too far.");
  expect(problemIn(problems, "rig", "amount")).toBe("Too heavy.");
  expect(problemIn(problems, "move", "focal")).toBeUndefined();
});

it("offers every move, each with a usual amount that its range allows", () => {
  expect(MOVE_OPTIONS.map((one) => one.value)).toEqual(Object.keys(MOVES));
  for (const { range, usual } of Object.values(MOVES)) {
    expect(usual).toBeGreaterThanOrEqual(range.min);
    expect(usual).toBeLessThanOrEqual(range.max);
  }
});

it("draws a station from above, and from the side where the move goes up", () => {
  const station = {
    x_m: 1,
    y_m: 2,
    z_m: 3,
    yaw_deg: 90,
    pitch_deg: -90,
  } as Move["stations"][number];
  expect(across("plan", station)).toEqual({ x: 1, y: 3 });
  expect(across("side", station)).toEqual({ x: 2, y: 3 });
  expect(heading("plan", station)).toBeCloseTo(Math.PI / 2);
  expect(heading("side", station)).toBeCloseTo(-Math.PI / 2);
});

it("sees as much as the lens does: 18 mm is half of the full width", () => {
  expect(halfView("plan", 18, 9 / 16)).toBeCloseTo(Math.PI / 4);
  expect(halfView("side", 18, 1)).toBeCloseTo(Math.PI / 4);
  expect(halfView("side", 35, 9 / 16)).toBeLessThan(halfView("plan", 35, 9 / 16));
});
