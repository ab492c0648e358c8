import { describe, expect, it } from "vitest";
import * as format from "./formats";

describe("formats", () => {
  it("show gust with one decimal and a dash for nothing", () => {
    expect(format.gust(4)).toBe("4.0");
    expect(format.gust(null)).toBe("–");
  });
  it("show shares as percent", () => {
    expect(format.share(0.523)).toBe("52 %");
  });
  it("show file sizes in round units", () => {
    expect(format.fileSize(999)).toBe("999 B");
    expect(format.fileSize(1_234_567)).toBe("1.23 MB");
  });
  it("compare with the target as shown, to one decimal", () => {
    expect(format.againstTarget(5.24, 4)).toEqual({ over: true, words: "1.2 over" });
    expect(format.againstTarget(3.5, 4)).toEqual({ over: false, words: "0.5 under" });
    expect(format.againstTarget(4.04, 4)).toEqual({ over: true, words: "Just over" });
    expect(format.againstTarget(3.96, 4)).toEqual({ over: false, words: "Exactly at" });
    expect(format.againstTarget(null, 4)).toBeNull();
  });
  it("tell minutes where seconds grow long", () => {
    expect(format.seconds(89.94)).toBe("89.9 s");
    expect(format.seconds(499.4)).toBe("8:19 min");
    expect(format.seconds(3723)).toBe("1:02:03 h");
    expect(format.seconds(null)).toBe("–");
    expect(format.span(1.2, 4.5)).toBe("1.2 to 4.5 s");
    expect(format.span(80, 499.4)).toBe("1:20 to 8:19 min");
  });
  it("show a day without a time as that day, west of Greenwich too", () => {
    const day = new Intl.DateTimeFormat(undefined, { day: "numeric" });
    expect(format.when("2026-11-28").day).toContain(day.format(new Date(2026, 10, 28)));
    expect(new Date("2026-11-28T00:00").getDate()).toBe(28);
  });
  it("never shows a broken date", () => {
    expect(format.when("nonsense").day).toBe("–");
  });
});
