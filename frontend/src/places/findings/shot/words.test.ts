import { expect, test } from "vitest";
import type { ShotAnswer, ShotOption } from "../../../api/shot";
import { lensBy, lensStep } from "../LensSlider";
import {
  doingWords,
  framingLens,
  groundWords,
  lastingWords,
  needWords,
  outlookWords,
} from "./words";

const one: ShotOption = {
  key: "hands/two", name: "Two hands", drill_key: "hands", drill: "One hand or two",
  variation: "two", needs: [], remedy: "keep", fps: 24, rate: 1, crop_pct: null, distance: 1,
  focal_eq_mm: 50, lens: "Standard zoom", gust: 3.2, chance: 0.9, lasts: 1,
  longest_s: 8, left_px: 1920, works: true, blurs: false, takes: 8, seconds: 4,
}; // prettier-ignore
const answer = (options: ShotOption[], three_legs = false): ShotAnswer => ({
  brief: { id: 1, name: "B" }, briefs: [], setup: { id: 1, name: "S" }, setups: [], feel: "smooth",
  wanted_s: 4, keep_sound: false, screen: "laptop", delivery_fps: 24, delivery_width_px: 1920,
  target: 4, options, three_legs, recorded: 8, lenses: [],
}); // prettier-ignore

test("each remedy is told as what to do", () => {
  expect(doingWords(one)).toBe("As shot: film at 24/s, hold 4.0 s.");
  const slow = { ...one, remedy: "slow", fps: 60, rate: 0.4, seconds: 1.6 } as const;
  expect(doingWords(slow)).toBe("Film at 60/s, hold 1.6 s, play it at 40 %.");
  expect(doingWords({ ...slow, remedy: "slow_polish", crop_pct: 5 })).toContain(
    "then a medium polish, crop 5.0 %",
  );
  const nearer = { ...one, remedy: "nearer", distance: 0.6, focal_eq_mm: 30 } as const;
  expect(doingWords(nearer)).toContain("from 60 % of the distance at 30 mm");
});

test("what it takes and rests on is told", () => {
  expect(needWords(["strap", "lean"])).toBe("Takes a strap, something to lean on.");
  expect(groundWords(one, 1920)).toBe("From 8 takes of yours. Lens: Standard zoom.");
  expect(groundWords({ ...one, takes: 0, lens: null, blurs: true }, 1920)).toBe(
    "Typical figures: you have no take of it. No lens of your kit reaches it. Its frames smear, and a polish leaves that.",
  );
});

test("it is told how many go on so long, and where that is reckoned", () => {
  expect(lastingWords(one)).toBe("");
  expect(lastingWords({ ...one, lasts: 0.7 })).toBe("Of those smooth enough, 70 % last 4.0 s.");
  expect(lastingWords({ ...one, lasts: 0.5, seconds: 20 })).toContain("your longest is 8.0 s");
  expect(lastingWords({ ...one, lasts: null })).toBe("");
});

test("a polish that leaves fewer pixels than are delivered says so", () => {
  expect(groundWords({ ...one, left_px: 1700 }, 1920)).toContain("Leaves 1700 px of the 1920");
});

test("what all come to is told plainly", () => {
  expect(outlookWords(answer([one]))).toMatch(/^One way works/);
  const poor = { ...one, works: false, chance: 0.6 };
  expect(outlookWords(answer([poor]))).toContain("No way is sure");
  expect(outlookWords(answer([{ ...poor, chance: 0.1 }], true))).toContain("wants three legs");
  expect(outlookWords(answer([]))).toContain("No technique");
  expect(outlookWords({ ...answer([one]), recorded: 0 })).toMatch(/^By typical figures: One way/);
});

test("a framing gives its lens, and the slider goes evenly in stops", () => {
  expect(framingLens(3.6, 5)).toBeCloseTo(50);
  expect(framingLens(100, 1)).toBe(10);
  expect(lensBy(50, 0)).toBeCloseTo(50, -1);
  expect(lensBy(10, -5)).toBe(10);
  expect(lensStep(320)).toBe(100);
});
