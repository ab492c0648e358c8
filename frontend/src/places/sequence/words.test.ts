import { expect, test } from "vitest";
import type { PlannedShot } from "../../api/outings";
import { besideFrame, DRILL_OF_MOVE, frameWords, HEADINGS, MOVES } from "./words";

const shot = {
  size: "wide", height: "eye", subject: "mill", foreground: "", enters: false, playback: 1,
  sound: false, takes: 1, ask: "",
} as unknown as PlannedShot; // prettier-ignore

test("a plain shot is told by its size, its subject and its move, and nothing else", () => {
  expect(besideFrame(shot)).toEqual([]);
  expect(frameWords(shot, "still")).toBe("wide of mill, at eye level, still");
});

test("what is not drawn is told beside the frame, and to who cannot see it", () => {
  const all = {
    ...shot,
    foreground: "fence",
    enters: true,
    playback: 0.4,
    sound: true,
    takes: 3,
    ask: "the miller",
  };
  const beside = ["it comes into the frame", "40 % speed", "sound", "3 takes", "ask the miller"];
  expect(besideFrame(all)).toEqual(beside);
  expect(frameWords(all, "pan left")).toBe(
    `wide of mill, at eye level, pan left, fence in front, ${beside.join(", ")}`,
  );
});

test("every move has its ways and a drill", () => {
  for (const { value } of MOVES) {
    expect(DRILL_OF_MOVE[value], value).not.toBe("");
    expect(HEADINGS[value].length > 0, value).toBe(value !== "still");
  }
});
