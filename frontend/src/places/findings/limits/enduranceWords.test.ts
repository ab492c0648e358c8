import { expect, test } from "vitest";
import { restingWords, tiringWords } from "./enduranceWords";

const tiring = {
  a_take: 0.1, low: 0.05, high: 0.15, gust_first: 3, gust_last: 4.5, margin: 0.5, until: 6,
}; // prettier-ignore
const resting = {
  doubled: -0.3, low: -0.4, high: -0.2, gust_short: 4, gust_long: 3, margin: 0.5, enough_s: 60,
}; // prettier-ignore

test("takes before tiring are told with their interval", () => {
  expect(tiringWords(tiring, 4)).toMatch(
    /^Four in five pass until take 6\. Each further take \+0\.10* \(\+0\.\d+ to \+0\.\d+\)\.$/,
  );
  expect(tiringWords({ ...tiring, until: 0 }, 4)).toMatch(/^Four in five never pass/);
  expect(tiringWords({ ...tiring, until: null }, 4)).toContain("No session is long enough");
  expect(tiringWords({ ...tiring, low: -0.1, until: null }, 4)).toMatch(/No tiring can be told\.$/);
  expect(tiringWords({ ...tiring, low: -0.1, until: null }, 3)).toContain("never pass");
});

test("a rest is told as what is enough", () => {
  expect(restingWords(resting, 20)).toContain("Four in five pass after 60.0 s of rest.");
  expect(restingWords(resting, 60)).toContain("Your shortest is enough.");
  expect(restingWords({ ...resting, enough_s: null }, 20)).toContain("No rest that you took");
  expect(restingWords({ ...resting, high: 0.1 }, 20)).toContain("is not told");
});
