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
  it("count one thing and several", () => {
    expect([0, 1, 2].map((count) => format.counted(count, "drill"))).toEqual([
      "0 drills",
      "1 drill",
      "2 drills",
    ]);
    expect(format.counted(1, "try", "tries")).toBe("1 try");
    expect(format.counted(3, "try", "tries")).toBe("3 tries");
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

describe("what is told of files and films", () => {
  it("goes to the next unit as soon as it would be told as a thousand", () => {
    const told: [number, string][] = [
      [0, "0 B"], [1, "1 B"], [999, "999 B"], [1000, "1 kB"], [999_499, "999 kB"],
      [999_500, "1 MB"], [999_999, "1 MB"], [12_345_678, "12.3 MB"], [5e9, "5 GB"],
      [4.2e15, "4,200 TB"],
    ]; // prettier-ignore
    for (const [bytes, words] of told) expect(format.fileSize(bytes)).toBe(words);
  });
  it("says how long in the unit that suits it", () => {
    expect(format.seconds(0)).toBe("0.0 s");
    expect(format.seconds(90)).toBe("1:30 min");
    expect(format.seconds(3599.9)).toBe("59:59 min");
    expect(format.seconds(3600)).toBe("1:00:00 h");
    expect(format.seconds(NaN)).toBe("–");
    expect(format.span(3500, 3700)).toBe("58:20 to 1:01:40 h");
    expect(format.exactSeconds(1.005)).toMatch(/^1\.0[01] s$/);
  });
  it("bounds what lies within the error of finding it", () => {
    expect(format.readout(0.0031)).toBe("< 4 ms");
    expect(format.readout(0.004)).toBe("4 ms");
    expect(format.readout(0.0287)).toBe("29 ms");
    expect(format.percentOfWidth(0.0049)).toBe("under 0.01 %");
    expect(format.percentOfWidth(0.05)).toBe("0.05 %");
    expect(format.percentOfWidth(null)).toBe("–");
  });
  it("never tells a lens as longer than the one that passes", () => {
    for (const mm of [35, 35.4, 35.99, 84.999]) {
      expect(parseFloat(format.longestLens(mm))).toBeLessThanOrEqual(mm);
    }
  });
  it("says how sure it is in three words", () => {
    expect([0.9, 0.75, 0.6, 0.45, 0.2].map(format.certainty)).toEqual([
      "clear", "clear", "likely", "likely", "possible",
    ]); // prettier-ignore
    expect([0, 1, 2].map(format.takes)).toEqual(["0 takes", "1 take", "2 takes"]);
  });
  it("is over the target exactly where the gust is, whatever is shown", () => {
    for (let gust = 3.5; gust < 4.5; gust += 0.013) {
      expect(format.againstTarget(gust, 4)?.over).toBe(gust > 4);
    }
    expect(format.againstTarget(4, 4)?.words).toBe("Exactly at");
  });
  it("tells the day and the time of a moment apart, and no time of a day alone", () => {
    const { day, time } = format.when("2026-05-03T12:34:00+00:00");
    expect(day).toMatch(/2026/);
    expect(time).toMatch(/\d\d[:.]\d\d/);
    expect(format.when(null)).toEqual({ day: "–", time: "" });
    expect(format.shortDay("2026-05-03T12:00:00+00:00")).toMatch(/3/);
  });
});
