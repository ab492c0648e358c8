import { expect, it } from "vitest";
import type { TakeResult } from "../../api/practice";
import { CAMERAS, isTold, saidOf, SAYINGS } from "./choices";

const result = {
  figure: "Gust 4.2, over 4.0.",
  advice: "Footfalls: bend the knees.",
} as TakeResult;

it("says of a take as much as was chosen", () => {
  const said = SAYINGS.map(({ value }) => saidOf(result, value));
  expect(said).toEqual([
    "Gust 4.2, over 4.0. Footfalls: bend the knees.",
    "Gust 4.2, over 4.0.",
    "",
  ]);
  expect(saidOf({ ...result, advice: "" }, "advice")).toBe("Gust 4.2, over 4.0.");
});

it("tells of films only where they come while the session runs", () => {
  expect(CAMERAS.filter(({ value }) => !isTold(value)).map(({ value }) => value)).toEqual(["none"]);
});
