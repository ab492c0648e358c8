import { beforeEach, describe, expect, it, vi } from "vitest";
import { forgetLog, keptLogs, logOf, RIG_COLUMNS, RIG_HEADER, RigRecorder } from "./rigLog";

const store = new Map<string, string>();
let room = true;
vi.mock("idb-keyval", () => ({
  set: (key: string, value: string) => {
    if (!room) return Promise.reject(new DOMException("no room", "QuotaExceededError"));
    store.set(key, value);
    return Promise.resolve();
  },
  entries: () => Promise.resolve([...store]),
  delMany: (keys: string[]) => Promise.resolve(keys.forEach((key) => store.delete(key))),
  setMany: (all: [string, string][]) =>
    Promise.resolve(all.forEach(([key, value]) => store.set(key, value))),
}));

const BEGUN = 1_700_000_000_000;
const sample = (t_s: number) => ({ t_s, at: 1000 * t_s, pan: 1, tilt: -2, roll: 0.5 });

/** Samples at 50 a second, handed over at once as they come. */
function log(recorder: RigRecorder, from_s: number, to_s: number) {
  for (let k = Math.round(50 * from_s); k < Math.round(50 * to_s); k++)
    recorder.push(sample(k / 50), BEGUN + 20 * k);
}
const settled = () => new Promise((resolve) => setTimeout(resolve));
const times = (csv: string) =>
  csv
    .trim()
    .split("\n")
    .slice(1)
    .map((row) => Number(row.split(",")[0]));

beforeEach(() => {
  store.clear();
  room = true;
});

describe("a log on the rig", () => {
  it("is kept a piece every two seconds, and whole in the end", async () => {
    const recorder = new RigRecorder(BEGUN);
    log(recorder, 0, 5);
    await settled();
    expect(store.size).toBe(2);
    expect(recorder.unkept?.seconds).toBeLessThan(2);
    await recorder.keep();
    expect(recorder.unkept).toBeNull();
    const [kept] = await keptLogs();
    expect(kept?.begun).toBe(BEGUN);
    expect(kept?.seconds).toBeCloseTo(4.98);
    expect(kept?.csv.split("\n")[0]).toBe(RIG_HEADER);
    expect(times(kept?.csv ?? "")).toHaveLength(250);
  });

  it("tells the clock's time with the sensor's own steps", async () => {
    const recorder = new RigRecorder(BEGUN);
    recorder.push(sample(0), BEGUN + 3);
    recorder.push(sample(0.02), BEGUN + 55); // handed over late
    await recorder.keep();
    const [kept] = await keptLogs();
    expect(times(kept?.csv ?? "")).toEqual([1_700_000_000.003, 1_700_000_000.023]);
  });

  it("keeps nothing where nothing came", async () => {
    await new RigRecorder(BEGUN).keep();
    expect(store.size).toBe(0);
    expect(await keptLogs()).toEqual([]);
  });

  it("loses nothing where there is no room, and says so", async () => {
    const told: boolean[] = [];
    const recorder = new RigRecorder(BEGUN, (kept) => told.push(kept));
    room = false;
    log(recorder, 0, 3);
    await settled();
    expect(told).toEqual([false]);
    expect(store.size).toBe(0);
    expect(recorder.unkept?.seconds).toBeCloseTo(2.98);
    room = true;
    log(recorder, 3, 6);
    await settled();
    await recorder.keep();
    expect(told.at(-1)).toBe(true);
    const [kept] = await keptLogs();
    const found = times(kept?.csv ?? "");
    expect(found).toHaveLength(300);
    expect(found).toEqual([...found].sort((a, b) => a - b));
  });

  it("is put together in the order of time, whatever came first", () => {
    const { csv, seconds } = logOf(BEGUN, ["3,1,1,1\n4,1,1,1", "1,1,1,1\n2,1,1,1", ""]);
    expect(times(csv)).toEqual([1, 2, 3, 4]);
    expect(seconds).toBe(3);
    expect(csv.endsWith("\n")).toBe(true);
    expect(logOf(BEGUN, []).seconds).toBe(0);
  });

  it("is forgotten and comes back, and no other with it", async () => {
    store.set("something-else", "x");
    for (const begun of [BEGUN + 1000, BEGUN]) {
      const recorder = new RigRecorder(begun);
      recorder.push(sample(0), begun);
      await recorder.keep();
    }
    expect((await keptLogs()).map((one) => one.begun)).toEqual([BEGUN, BEGUN + 1000]);
    const again = await forgetLog(BEGUN);
    expect((await keptLogs()).map((one) => one.begun)).toEqual([BEGUN + 1000]);
    await again();
    expect(await keptLogs()).toHaveLength(2);
    expect(store.get("something-else")).toBe("x");
  });

  it("says what its columns are by its own header", () => {
    for (const column of [RIG_COLUMNS.time, RIG_COLUMNS.pan, RIG_COLUMNS.tilt, RIG_COLUMNS.roll])
      expect(RIG_HEADER.split(",")).toContain(column);
  });
});
