import { expect, test } from "vitest";
import type { Limits } from "../../api/limits";
import type { PracticePlan } from "../../api/practice";
import { limitWarnings } from "./limitWarnings";

const technique = (key: string, name: string, longest_mm: number, hint = false) =>
  ({ key, name, drill_key: key.split("/")[0], longest_mm, hint }) as Limits["techniques"][number];
const limits = {
  focal_eq_mm: 26,
  techniques: [
    technique("hands/one", "One hand", 12),
    technique("hands/two", "Two hands", 30),
    technique("hands/light", "Light grip", 10, true),
    technique("lens-tremor-limit/long", "Long", 20),
  ],
} as Limits;
const plan = {
  blocks: [
    { drill_key: "hands", order: ["one", "two", "light"] },
    { drill_key: "lens-tremor-limit", order: ["long"] },
  ],
} as unknown as PracticePlan;

const drills = { "lens-tremor-limit": { needs: ["long_lens" as const] } };

test("ways that a lens is too long for are named before they are filmed", () => {
  expect(limitWarnings(plan, limits, null, drills)).toEqual({
    hands: "26 mm is longer than you hold this way: one hand 12 mm.",
  });
  expect(limitWarnings(plan, limits, 50, drills)["hands"]).toContain("two hands 30 mm");
  expect(limitWarnings(plan, limits, 10, drills)).toEqual({});
  expect(limitWarnings(plan, { ...limits, focal_eq_mm: null }, null, drills)).toEqual({});
});

test("a lens is never said to be borne and beyond at once", () => {
  const near = { ...limits, techniques: [technique("hands/one", "One hand", 25.7)] } as Limits;
  expect(limitWarnings(plan, near, 26, drills)["hands"]).toContain("26 mm is longer");
  expect(limitWarnings(plan, near, 26, drills)["hands"]).toContain("one hand 25 mm");
});
