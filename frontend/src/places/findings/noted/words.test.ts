import { expect, test } from "vitest";
import type { Noted } from "../../../api/progress";
import { feelingWords, placeWords, restWords, shortFeeling, tirednessWords } from "./words";

const feeling = { right: 0.75, low: 0.62, high: 0.85, word: "trust", good: 60, bad: 20 };
const nothing: Noted = {
  feeling: null, techniques: [], felt: 0, tiredness: null, tired: 0, tiring: null,
  stop_after: null, rest: null, rests_alike: false,
}; // prettier-ignore
const level = (n: number, value: number) => ({
  level: n, value, low: value - 0.2, high: value + 0.2, takes: 9,
}); // prettier-ignore

test("a feeling is told with its interval, or why it is not", () => {
  expect(feelingWords(feeling, 80)).toBe(
    "Your feeling can be trusted. Of two takes, the one that felt good was the steadier 75 times in a hundred (62 to 85).",
  );
  expect(feelingWords(null, 0)).toContain("No take has a feeling");
  expect(feelingWords(null, 5)).toContain("Too few takes");
  expect(shortFeeling({ ...feeling, word: "open" })).toBe("not told yet, 75 of 100 (62 to 85)");
});

test("tiredness says from where to stop, or what the worst brings", () => {
  const tiredness = { base: 1, base_takes: 10, levels: [level(4, 0.6)], stop_from: 4 };
  expect(tirednessWords({ ...nothing, tiredness })).toMatch(/^From “4, tired” on/);
  const none = { ...tiredness, levels: [level(2, 0.1), level(3, 0.3)], stop_from: null };
  expect(tirednessWords({ ...nothing, tiredness: none })).toContain("at 3, working, is +0.30");
});

test("takes and rests", () => {
  const tiring = { value: 0.05, low: 0.03, high: 0.07 };
  expect(placeWords({ ...nothing, tiring, stop_after: 10 })).toContain("After about 10 takes");
  expect(placeWords({ ...nothing, tiring: { value: 0, low: -0.1, high: 0.1 } })).toContain(
    "No tiring can be told",
  );
  expect(restWords({ ...nothing, rests_alike: true })).toContain("about alike");
  const rest = { doubled: { value: -0.1, low: -0.15, high: -0.05 }, usual_s: 30, longest_s: 240 };
  expect(restWords({ ...nothing, rest })).toContain("is worth −0.30");
});
