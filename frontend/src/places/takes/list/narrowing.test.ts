import { expect, test } from "vitest";
import { narrowed, setFilters, without } from "./narrowing";

test("a value is set as the server wants it, and opened again", () => {
  const one = narrowed({ sort: "gust" }, "session_id", "12");
  expect(one).toEqual({ sort: "gust", session_id: 12 });
  expect(narrowed(one, "session_id", null)).toEqual({ sort: "gust" });
});

test("another drill drops the variation of the last", () => {
  const walk = { drill_key: "walk", variation_key: "off" };
  expect(narrowed(walk, "drill_key", "hands")).toEqual({ drill_key: "hands" });
  expect(narrowed(walk, "drill_key", null)).toEqual({});
});

test("filters are counted without order and search", () => {
  const filter = { sort: "gust", text: "mill", day: "2026-05-01", cause: "tremor" } as const;
  expect(setFilters(filter)).toBe(2);
  expect(setFilters(without(filter, ["day", "cause"]))).toBe(0);
});
