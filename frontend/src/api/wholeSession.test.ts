import { expect, test } from "vitest";
import type { components } from "./schema";
import { wholeSession } from "./wholeSession";

const KEPT = {
  session: {},
  drills: {},
  checks: {},
  cadence_hz: 1.9,
} as components["schemas"]["SessionDetail"];

test("a session that was kept before its takes had outcomes is shown all the same", () => {
  expect(wholeSession(KEPT).outcomes).toEqual([]);
  const outcomes = [{ ridge: "", why_out: "unsure" }];
  expect(wholeSession({ ...KEPT, outcomes }).outcomes).toBe(outcomes);
});
