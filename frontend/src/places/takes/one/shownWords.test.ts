import { describe, expect, it } from "vitest";
import { shownWords } from "./shownWords";

describe("which frames are read", () => {
  it("are every so many where the rates divide", () => {
    expect(shownWords(50, 2)).toContain("Read at 25/s: at full speed every second frame of 50/s");
    expect(shownWords(120, 5)).toContain("every 5th frame");
  });
  it("are the latest by then where they do not, and what helps is said", () => {
    const words = shownWords(60, 2.5);
    expect(words).toContain("2.5 frames of 60/s go into each one shown");
    expect(words).toContain("Slow it");
  });
});
