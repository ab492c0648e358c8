import { describe, expect, it } from "vitest";
import { ladderPath, skyline } from "./ladder";

describe("the ladder of gusts", () => {
  it("is a plain at nothing and rises towards alps, never out of its box", () => {
    expect(skyline(0)).toBeLessThan(0.03);
    const mean = (from: number) =>
      Array.from({ length: 40 }, (_, k) => skyline(from + k / 40)).reduce((a, b) => a + b) / 40;
    expect(mean(8)).toBeGreaterThan(mean(5));
    expect(mean(5)).toBeGreaterThan(mean(2));
    for (let gust = 0; gust <= 10; gust += 0.1) {
      expect(skyline(gust)).toBeGreaterThan(0);
      expect(skyline(gust)).toBeLessThanOrEqual(1);
    }
  });
  it("is the same every time and closes on its foot", () => {
    const path = ladderPath(300, 100);
    expect(path).toBe(ladderPath(300, 100));
    expect(path.startsWith("M0 100")).toBe(true);
    expect(path.endsWith("L300 100Z")).toBe(true);
    expect(path).not.toContain("NaN");
  });
});
