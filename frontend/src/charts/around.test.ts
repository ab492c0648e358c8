import { expect, test } from "vitest";
import { around } from "./around";

test("a scale leaves room around its values, and has a length without any", () => {
  expect(around([4, 6], 0, 100, 0.5)(3.5)).toBe(0);
  expect(around([], 0, 100)(5)).toBe(50);
});
