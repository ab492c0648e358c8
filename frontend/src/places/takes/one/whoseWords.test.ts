import { describe, expect, it } from "vitest";
import type { ShotDoubt } from "../../../api/client";
import { background, question } from "./whoseWords";

const edges = { where: "around the edges", gust: 0.2, still: true, points: 40 };
const middle = { where: "in the middle", gust: 6.4, still: false, points: 80 };

function asked(more: Partial<ShotDoubt>): ShotDoubt {
  return {
    shot: 0,
    start_s: 0,
    end_s: 3,
    doubt: null,
    said: false,
    by_log: false,
    rivals: [edges, middle],
    ...more,
  };
}

describe("whose motion it is", () => {
  it("names both rivals where they are as likely", () => {
    const words = question(asked({ doubt: "rivals" }));
    expect(words).toContain("around the edges");
    expect(words).toContain("in the middle");
  });

  it("asks of the only motion whether it is the camera's", () => {
    const words = question(asked({ doubt: "alone", rivals: [middle] }));
    expect(words).toContain("Only what is in the middle");
    expect(background(middle, 1)).toBe("It is the camera");
  });

  it("tells what is believed where it is settled, and what the shooter said", () => {
    expect(question(asked({}))).toMatch(/^What is around the edges is taken for the background/);
    expect(question(asked({ said: true }))).toMatch(/^You said/);
  });
});
