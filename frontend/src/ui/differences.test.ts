import { describe, expect, it } from "vitest";
import { differences } from "./differences";

describe("differences", () => {
  it("names only what differs, by its path", () => {
    const mine = { name: "A", optics: { focal_mm: 35, locked: true }, ids: [1, 2] };
    const other = { name: "A", optics: { focal_mm: 50, locked: false }, ids: [1] };
    expect(differences(mine, other)).toEqual([
      { what: "optics, focal (mm)", mine: "35", other: "50" },
      { what: "optics, locked", mine: "yes", other: "no" },
      { what: "ids, 1", mine: "2", other: "–" },
    ]);
    expect(differences(mine, mine)).toEqual([]);
  });
  it("tells something from nothing", () => {
    expect(differences({ why: null }, { why: "it may" })).toEqual([
      { what: "why", mine: "–", other: "it may" },
    ]);
  });
});
