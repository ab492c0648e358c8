import { expect, test } from "vitest";
import { beginningAt, endingAt, type Stretch } from "./stretch";

const log = { seconds: 4200, longest: 3600 };
const first: Stretch = [0, 3600];

test.each([
  ["a later beginning keeps its end", beginningAt(first, 2400, log), [2400, 3600]],
  ["an earlier one brings its end along", beginningAt([600, 4200], 300, log), [300, 3900]],
  ["one behind its end takes what is left", beginningAt([0, 600], 900, log), [900, 4200]],
  ["an earlier end keeps its beginning", endingAt(first, 600, log), [0, 600]],
  ["a later one brings its beginning along", endingAt(first, 4200, log), [600, 4200]],
  ["one before its beginning takes what was before", endingAt([900, 1200], 600, log), [0, 600]],
  ["an end behind the log's is the log's", endingAt(first, 5000, log), [600, 4200]],
])("%s", (_, found, wanted) => {
  expect(found).toEqual(wanted);
});

test("whatever is asked, something is kept, within the log and not too long", () => {
  let kept: Stretch = first;
  for (let k = 0; k < 500; k += 1) {
    const at = (k * 977) % 4140;
    kept = k % 2 ? beginningAt(kept, at, log) : endingAt(kept, at + 60, log);
    const [from, to] = kept;
    expect(from).toBeGreaterThanOrEqual(0);
    expect(to).toBeLessThanOrEqual(log.seconds);
    expect(to - from).toBeGreaterThan(0);
    expect(to - from).toBeLessThanOrEqual(log.longest);
  }
});
