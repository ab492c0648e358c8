import { describe, expect, it } from "vitest";
import type { SessionTake } from "../../../api/practice";
import { notesOf, readNotes } from "./notes";

const take = (position: number, state: string, felt: string | null = null) =>
  ({
    position,
    state,
    felt,
    wind: null,
    fatigue: 2,
    tension: null,
    filmed_at: null,
  }) as SessionTake;

describe("notes in a file", () => {
  it("hold the takes of which something became, and are read back as they were", () => {
    const file = notesOf(4, [take(0, "filmed", "good"), take(1, "skipped"), take(2, "planned")]);
    const read = readNotes(JSON.stringify(file), 4);
    expect(read.map((one) => [one.position, one.state, one.felt])).toEqual([
      [0, "filmed", "good"],
      [1, "skipped", null],
    ]);
  });
  it("are refused where they are no notes, or another session's", () => {
    expect(() => readNotes("{", 4)).toThrow("no file of notes");
    expect(() => readNotes("null", 4)).toThrow("no file of notes");
    expect(() => readNotes('{"a":1}', 4)).toThrow("no file of notes");
    expect(() => readNotes(JSON.stringify(notesOf(5, [])), 4)).toThrow("another session");
  });
});
