import { expect, test, vi } from "vitest";
import type { TakeResult } from "../../api/practice";
import type { Feed } from "../../camera/feed";
import { FilmedTakes, type Ways } from "./filmedTakes";

const feed = { stream: {} as MediaStream, close: () => undefined } satisfies Feed;
const told: TakeResult = {
  state: "told", take_id: 7, gust: 3.2, target: 4, passed: true, better_by: 0.8, cause: "", change: "",
  figure: "Gust 3.2, within 4.", advice: "The same again.",
}; // prettier-ignore

function made(over: Partial<Ways> = {}) {
  let hand: (film: File) => void = () => undefined;
  const calls: string[] = [];
  const results: TakeResult[] = [{ ...told, state: "measuring" }, told];
  const ways: Ways = {
    record: (_, onFilm) => {
      hand = onFilm;
      return { stop: () => hand(new File(["x"], "a.webm")), drop: () => calls.push("dropped") };
    },
    send: () => Promise.resolve(7),
    file: (position, id) => calls.push(`filed ${id} under ${position}`),
    result: () => Promise.resolve(results.shift() ?? told),
    pause: () => Promise.resolve(),
    ...over,
  };
  const filmed = new FilmedTakes(ways);
  filmed.use(feed);
  return { filmed, calls };
}

test("a take is rolled, brought in, filed and told", async () => {
  const { filmed, calls } = made();
  filmed.begin(2);
  expect(filmed.isAwaited(2)).toBe(true);
  filmed.end();
  await vi.waitFor(() => expect(filmed.isAwaited(2)).toBe(false));
  expect(calls).toEqual(["filed 7 under 2"]);
  expect(filmed.snapshot().get(2)).toEqual({ at: "told", result: told });
});

test("a take that was broken off leaves nothing", () => {
  const { filmed, calls } = made();
  filmed.begin(0);
  filmed.drop();
  filmed.end();
  expect(calls).toEqual(["dropped"]);
  expect(filmed.snapshot().size).toBe(0);
});

test("a film that comes by itself is waited for, and nothing is told of one that does not", async () => {
  const coming = made().filmed;
  coming.use(null);
  coming.expect(3, null);
  expect(coming.isAwaited(3)).toBe(true);
  await vi.waitFor(() => expect(coming.snapshot().get(3)).toEqual({ at: "told", result: told }));
  const never = made({ result: () => Promise.resolve({ ...told, state: "none" }) }).filmed;
  never.expect(0, null);
  await vi.waitFor(() => expect(never.isAwaited(0)).toBe(false));
  expect(never.snapshot().size).toBe(0);
  const again = made({ result: () => Promise.resolve(told) }).filmed;
  again.expect(0, 7);
  await vi.waitFor(() => expect(again.isAwaited(0)).toBe(false));
  expect(again.snapshot().size).toBe(0); // the film of before is no news
});

test("without a camera nothing is awaited", () => {
  const { filmed } = made();
  filmed.use(null);
  filmed.begin(0);
  filmed.end();
  expect(filmed.isAwaited(0)).toBe(false);
});

test("a film that cannot be brought in is told, and one on its way is filed after it closed", async () => {
  const { filmed } = made({ send: () => Promise.reject(new Error("away")) });
  filmed.begin(1);
  filmed.end();
  await vi.waitFor(() => expect(filmed.isAwaited(1)).toBe(false));
  const last = filmed.snapshot().get(1);
  expect(last?.at === "told" && last.result.figure).toContain("could not be brought in");

  let arrive: (takeId: number) => void = () => undefined;
  const leaving = made({ send: () => new Promise((resolve) => (arrive = resolve)) });
  leaving.filmed.begin(0);
  leaving.filmed.end();
  leaving.filmed.close();
  arrive(9);
  await vi.waitFor(() => expect(leaving.calls).toEqual(["filed 9 under 0"]));
});

test("measuring that never ends is given up", async () => {
  const { filmed } = made({ result: () => Promise.resolve({ ...told, state: "measuring" }) });
  filmed.begin(0);
  filmed.end();
  await vi.waitFor(() => expect(filmed.isAwaited(0)).toBe(false));
});
