import { expect, it } from "vitest";
import { gustWords, share } from "./words";

const line = {
  name: "pan",
  drill: "Planned shots",
  drill_key: null,
  takes: 3,
  used: 2,
  seconds: 8,
  gust: 2.04,
  usual: 4.4,
};

it("says what was used against the usual take", () => {
  expect(share(line)).toBe("67 %");
  expect(gustWords(line)).toBe("used 2.0, usual 4.4");
  expect(gustWords({ ...line, gust: null })).toBe("usual 4.4");
});
