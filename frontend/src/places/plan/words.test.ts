import { expect, it } from "vitest";
import * as words from "./words";

it("offers every choice once, in the order in which it is written", () => {
  const { optionsOf, ...all } = words;
  for (const table of Object.values(all)) {
    const options = optionsOf<string>(table);
    expect(options.map((one) => one.value)).toEqual(Object.keys(table));
    expect(new Set(options.map((one) => one.words)).size).toBe(options.length);
    for (const one of options) expect(one.words).toMatch(/^[A-Z]/);
  }
});
