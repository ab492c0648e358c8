import { expect, test } from "vitest";
import { edgedBy } from "./edged";

test("what a part of a pose moves is edged, and nothing for what cannot be drawn", () => {
  expect([...edgedBy(["left"])]).toEqual(["arm-l"]);
  expect([...edgedBy(["elbows", "knees_deg"])].sort()).toEqual(["arm-l", "arm-r", "legs"]);
  expect(edgedBy(["seconds", "tilt_deg"]).size).toBe(0);
  expect(edgedBy([]).size).toBe(0);
});
