// @vitest-environment happy-dom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, cleanup, renderHook, waitFor } from "@testing-library/react";
import type { ReactNode } from "react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { ExplainedError, UNREACHABLE } from "./client";
import { outbox } from "./outbox";

type Detail = { notes: string[] };
const KEY = ["things", 7];
const NAME = "test-notes";

/** A server that answers when it is told to, in the order in which it was asked. */
class Server {
  asked: string[] = [];
  #answers: { resolve: (detail: Detail) => void; reject: (error: Error) => void }[] = [];
  notes: string[] = [];

  send = (_id: number, change: string) => {
    this.asked.push(change);
    return new Promise<Detail>((resolve, reject) => this.#answers.push({ resolve, reject }));
  };
  async answer() {
    this.notes = [...this.notes, this.asked[this.notes.length] ?? ""];
    await act(async () => {
      this.#answers.shift()?.resolve({ notes: this.notes });
      await vi.advanceTimersByTimeAsync(0);
    });
  }
  async fail(error: Error) {
    await act(async () => {
      this.#answers.shift()?.reject(error);
      await vi.advanceTimersByTimeAsync(0);
    });
  }
}

const away = () => new ExplainedError(UNREACHABLE);
const refused = () => new ExplainedError({ message: "No.", hint: "Another one.", code: "invalid" });
const kept = () => localStorage.getItem(`${NAME}-7`) ?? "";

function opened(server: Server, outlives = true) {
  const cache = new QueryClient({ defaultOptions: { mutations: { networkMode: "always" } } });
  cache.setQueryData<Detail>(KEY, { notes: [] });
  const box = outbox<string, Detail>({
    name: NAME,
    row: "thing",
    keyOf: (id) => ["things", id],
    send: server.send,
    shown: (detail, change) => ({ notes: [...detail.notes, change] }),
    outlives: () => outlives,
    changed: "sessions",
  });
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={cache}>{children}</QueryClientProvider>
  );
  const view = renderHook(() => ({ send: box.useSend(7), unsent: box.useUnsent(7) }), { wrapper });
  const say = async (...changes: string[]) =>
    act(async () => {
      for (const change of changes) view.result.current.send.mutate(change);
      await vi.advanceTimersByTimeAsync(0);
    });
  const shown = () => cache.getQueryData<Detail>(KEY)?.notes;
  return { box, wrapper, view, say, shown, unsent: () => view.result.current.unsent };
}

beforeEach(() => {
  localStorage.clear();
  vi.useFakeTimers({ shouldAdvanceTime: true });
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

it("shows a change at once and sends them one after the other", async () => {
  const server = new Server();
  const { say, shown } = opened(server);
  await say("a", "b", "c");
  expect(shown()).toEqual(["a", "b", "c"]);
  expect(server.asked).toEqual(["a"]);
  await server.answer();
  expect(server.asked).toEqual(["a", "b"]);
  // The answer to the first knows nothing of those behind it.
  expect(shown()).toEqual(["a", "b", "c"]);
  await server.answer();
  await server.answer();
  expect(server.asked).toEqual(["a", "b", "c"]);
  expect(shown()).toEqual(["a", "b", "c"]);
});

it("keeps in the browser what is not sent yet, and nothing of it afterwards", async () => {
  const server = new Server();
  const { say } = opened(server);
  await say("a", "b");
  expect(JSON.parse(kept())).toHaveLength(2);
  await server.answer();
  expect(JSON.parse(kept())).toHaveLength(1);
  await server.answer();
  expect(kept()).toBe("");
});

it("does not keep what is for this page alone", async () => {
  const server = new Server();
  await opened(server, false).say("a");
  expect(server.asked).toEqual(["a"]);
  expect(kept()).toBe("");
});

it("sends again for as long as nobody answers, and says so", async () => {
  const server = new Server();
  const { say, unsent } = opened(server);
  await say("a");
  expect(unsent()).toBe(false);
  for (let tries = 0; tries < 6; tries++) {
    await server.fail(away());
    expect(unsent()).toBe(true);
    await act(() => vi.advanceTimersByTimeAsync(5000));
    expect(server.asked).toHaveLength(tries + 2);
  }
  await server.answer();
  expect(unsent()).toBe(false);
  expect(kept()).toBe("");
});

it("gives up what is refused, and goes on with what waits behind it", async () => {
  const server = new Server();
  const { say } = opened(server);
  await say("bad", "good");
  for (let tries = 0; tries < 4; tries++) {
    await server.fail(refused());
    await act(() => vi.advanceTimersByTimeAsync(5000));
  }
  expect(server.asked).toEqual(["bad", "bad", "bad", "bad", "good"]);
  await server.answer();
  expect(kept()).toBe("");
});

it("sends what an earlier page could not send any more, and leaves what is this page's own", async () => {
  const left = [
    { change: "left", page: "an earlier one" },
    { change: "too", page: "an earlier one" },
  ];
  localStorage.setItem(`${NAME}-7`, JSON.stringify(left));
  const server = new Server();
  const { box, wrapper, shown } = opened(server);
  renderHook(() => box.useLeft(7), { wrapper });
  await waitFor(() => expect(server.asked).toEqual(["left"]));
  expect(shown()).toEqual(["left", "too"]);
  await server.answer();
  await server.answer();
  expect(server.asked).toEqual(["left", "too"]);
  expect(kept()).toBe("");
});

it("sends all the same where the browser has no room to keep it", async () => {
  const full = vi.spyOn(Storage.prototype, "setItem").mockImplementation(() => {
    throw new DOMException("no room", "QuotaExceededError");
  });
  const server = new Server();
  const { say, shown } = opened(server);
  await say("a");
  expect(server.asked).toEqual(["a"]);
  await server.answer();
  expect(shown()).toEqual(["a"]);
  full.mockRestore();
});
