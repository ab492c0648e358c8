import { expect, test } from "vitest";
import { inOrder, MOST_BESIDES, nextToSettle, NONE, sideBySide, stretched, toggled } from "./picks";

test("a take is picked and left out again, and nothing that was given is changed", () => {
  const one = toggled(NONE, 4);
  expect([...one]).toEqual([4]);
  expect([...toggled(one, 4)]).toEqual([]);
  expect(NONE.size).toBe(0);
});

test("a stretch runs both ways and keeps what was picked before", () => {
  const shown = [9, 7, 5, 3, 1];
  expect([...stretched(new Set([1]), shown, 7, 3)].sort()).toEqual([1, 3, 5, 7]);
  expect([...stretched(NONE, shown, 3, 7)].sort()).toEqual([3, 5, 7]);
});

test("a stretch from a take that is not shown is that one take", () => {
  expect([...stretched(NONE, [9, 7], 100, 7)]).toEqual([7]);
});

test("picks come in the order of the list, those out of sight last", () => {
  expect(inOrder(new Set([3, 50, 9]), [9, 7, 3])).toEqual([9, 3, 50]);
});

test("after one is settled comes the next open one below", () => {
  const takes = [{ choice: "keep" }, { choice: null }, { choice: "reject" }, { choice: null }];
  expect(nextToSettle(takes, 1)).toBe(3);
  expect(nextToSettle(takes, 3)).toBe(3);
});

test("side by side says where it takes the first alone", () => {
  const many = Array.from({ length: MOST_BESIDES + 1 }, (_, k) => k + 1);
  expect(sideBySide(many).words).toBe("First 24 side by side");
  expect(sideBySide(many).to.split(",")).toHaveLength(MOST_BESIDES);
  expect(sideBySide([3, 4])).toEqual({ to: "/takes/compare?takes=3,4", words: "Side by side" });
});
