import { expect, test } from "vitest";
import { lackWords } from "./archiveWords";

const WHOLE = { made_at: null, files: 9, missing: [], changed: null, strays: [], uploads: 0 };

test("of an archive that has everything nothing is said", () => {
  expect(lackWords(WHOLE, "An archive made now")).toEqual([]);
});

test("what is missing, changed, still arriving or somebody else's is named", () => {
  const names = ["a", "b", "c", "d", "e", "f", "g"];
  const [missing, changed, uploads, strays] = lackWords(
    { ...WHOLE, missing: names, changed: ["walk"], uploads: 1, strays: ["originals/2025"] },
    "The archive",
  );
  expect(missing).toContain("lacks 7 originals: a, b, c, d, e and 2 more.");
  expect(changed).toContain("1 original that changed");
  expect(uploads).toBe("The archive leaves out 1 film that is still arriving.");
  expect(strays).toContain("originals/2025");
});
