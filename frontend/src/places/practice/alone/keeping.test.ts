// @vitest-environment happy-dom
import { afterEach, describe, expect, it, vi } from "vitest";
import { keepNotes, keptNotes } from "./keeping";

const NOTES = [{ position: 0, state: "filmed" }];

afterEach(() => {
  vi.restoreAllMocks();
  localStorage.clear();
  history.replaceState(null, "");
});

describe("notes of a session in one file", () => {
  it("are there when the file is opened again", () => {
    expect(keptNotes("a")).toEqual([]);
    keepNotes("a", NOTES);
    history.replaceState(null, "");
    expect(keptNotes("a")).toEqual(NOTES);
    expect(keptNotes("b")).toEqual([]);
  });
  it("outlive a reload after which the browser's store is empty", () => {
    keepNotes("a", NOTES);
    localStorage.clear();
    expect(keptNotes("a")).toEqual(NOTES);
  });
  it("outlive a store that is closed to files, and one that is spoilt", () => {
    vi.spyOn(Storage.prototype, "setItem").mockImplementation(() => {
      throw new DOMException("closed", "SecurityError");
    });
    keepNotes("a", NOTES);
    expect(keptNotes("a")).toEqual(NOTES);
    vi.restoreAllMocks();
    localStorage.setItem("a", "[{");
    expect(keptNotes("a")).toEqual(NOTES);
  });
});
