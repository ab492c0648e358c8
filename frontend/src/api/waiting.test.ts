import { beforeEach, describe, expect, it, vi } from "vitest";

/** A browser's store that outlives its pages. */
const store = new Map<string, string>();
vi.stubGlobal("localStorage", {
  getItem: (key: string) => store.get(key) ?? null,
  setItem: (key: string, value: string) => store.set(key, value),
  removeItem: (key: string) => store.delete(key),
});

async function openPage() {
  vi.resetModules();
  const { waitingStore } = await import("./waiting");
  return waitingStore<ReturnType<typeof filmed>>("notes");
}
const filmed = (position: number) => ({
  act: "note" as const,
  position,
  note: { state: "filmed" as const, filmed_at: "2026-10-09T08:00:00Z" },
});

describe("notes that wait", () => {
  beforeEach(() => store.clear());
  it("are sent by the next opening of the page where this one is closed", async () => {
    const first = await openPage();
    first.keep(3, filmed(0));
    first.keep(3, filmed(1));
    first.drop(3, filmed(0));
    expect(first.takeLeft(3)).toEqual([]);
    const second = await openPage();
    expect(second.takeLeft(4)).toEqual([]);
    expect(second.takeLeft(3)).toEqual([filmed(1)]);
    expect(second.takeLeft(3)).toEqual([]);
  });
  it("leave nothing behind once all were sent", async () => {
    const page = await openPage();
    page.keep(3, filmed(0));
    page.drop(3, filmed(0));
    expect(store.size).toBe(0);
  });
  it("are none where the store was spoilt", async () => {
    store.set("ridgewind-session-notes-3", "{");
    const page = await openPage();
    expect(page.takeLeft(3)).toEqual([]);
  });
});
