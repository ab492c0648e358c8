import { expect, test } from "vitest";
import { exampleWords } from "../../../charts/bandWords";
import { likenessWords } from "./likenessWords";

const one = {
  name: "The old film",
  example: { sway: 0.8, jitter: 0.2 },
  here: { sway: 0.75, jitter: 0.25 },
  apart: 0.05,
  alike: true,
  more: "",
  less: "",
  move: null,
  wanted_move: null,
  same_move: true,
};

test("bands and move are told in words", () => {
  expect(exampleWords(one.example, null)).toBe("sway 80 %, jitter 20 %, held");
  expect(exampleWords({ buzz: 1 }, "push")).toBe("buzz 100 %, a push or pull");
});

test("likeness is told, and what differs", () => {
  expect(likenessWords(one)).toBe(
    "It shakes as its example does. Whether it passes is decided by gust alone.",
  );
  const otherwise = { ...one, alike: false, apart: 0.6, more: "jitter", less: "sway" };
  expect(likenessWords(otherwise)).toContain("60 % lies in other bands, more jitter and less sway");
  const moved = { ...one, same_move: false, wanted_move: "pan" };
  expect(likenessWords(moved)).toContain("The example is a pan, this is held.");
});
