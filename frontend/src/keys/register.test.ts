import { expect, it } from "vitest";
import { linesOf, register, registered, shownKey, subscribe } from "./register";

const nothing = () => undefined;

it("shows keys as they are printed on them", () => {
  expect(["ArrowLeft", "Shift+ArrowLeft", " ", "k", "?", "+"].map(shownKey)).toEqual([
    "←",
    "Shift ←",
    "Space",
    "K",
    "?",
    "+",
  ]);
});

it("lists what is registered, every page's keys last, and nothing once it is gone", () => {
  let heard = 0;
  const stop = subscribe(() => (heard += 1));
  const line = (words: string, key: string) => linesOf({ [words]: { [key]: nothing } });
  const app = register("app", { lines: line("Undo", "z"), everywhere: true });
  const page = register("page", { lines: line("Keep it", "k"), everywhere: false });
  const part = register("part", { lines: line("Loop it", "c"), everywhere: false });
  expect(registered().map((one) => one.words)).toEqual(["Loop it", "Keep it", "Undo"]);
  part();
  page();
  expect(registered()).toEqual([{ words: "Undo", keys: ["Z"] }]);
  app();
  expect(registered()).toEqual([]);
  expect(heard).toBe(6);
  stop();
});
