import { expect, test } from "vitest";
import { nameUnder } from "./words";

test("what the heading says already is not said again", () => {
  expect(nameUnder("One hand or two", "One hand 2 · One hand or two")).toBe("One hand 2");
  expect(nameUnder("One hand or two", "Sails at dusk")).toBe("Sails at dusk");
});
