import { expect, it } from "vitest";
import { BANDS } from "../../../charts/bands";
import { kindWord, SHAKES, shareWords } from "./kinds";

it("has the bands from slow to fast, with breath between the first two", () => {
  const names = SHAKES.map((one) => one.name);
  expect(names).toEqual(["drift", "breath", "sway", "step", "jitter", "buzz"]);
  expect(names.filter((name) => name !== "breath")).toEqual(BANDS.map((band) => band.name));
});

it("calls them by what a body does in them", () => {
  expect(["step", "jitter", "sway"].map(kindWord)).toEqual(["footfalls", "tremor", "sway"]);
});

it("tells shares in words, without what hardly counts", () => {
  expect(shareWords([0.5, 0.004, 0.2, 0.3, 0, 0])).toBe("drift 50 %, sway 20 %, footfalls 30 %");
  expect(shareWords([])).toBe("");
});
