import { describe, expect, it } from "vitest";
import { monthWords, shares } from "./space";

const kind = (key: "films" | "copies" | "parts", bytes: number) => ({
  key,
  bytes,
  files: 1,
  made: key === "parts",
});

describe("where the space goes", () => {
  it("leaves out what takes none, and the shares add up", () => {
    const found = shares([kind("films", 300), kind("copies", 0), kind("parts", 100)]);
    expect(found.map((one) => [one.key, one.share])).toEqual([
      ["films", 0.75],
      ["parts", 0.25],
    ]);
    expect(shares([])).toEqual([]);
  });

  it("names a month, and keeps what is none", () => {
    expect(monthWords("2026-05")).toMatch(/26/);
    expect(monthWords("?")).toBe("?");
  });
});
