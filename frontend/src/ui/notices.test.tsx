// @vitest-environment happy-dom
import { act, cleanup, renderHook, screen } from "@testing-library/react";
import { afterEach, expect, it } from "vitest";
import { ExplainedError } from "../api/client";
import { NoticeProvider, useNotices } from "./notices";

const opened = () => renderHook(() => useNotices(), { wrapper: NoticeProvider }).result;

/** What shows notices is loaded with the first of them. */
const LOADED = { timeout: 20_000 };

afterEach(cleanup);

it("undoes one deed after the other, the latest first, and no more than were done", async () => {
  const notices = opened();
  const undone: string[] = [];
  for (const name of ["one", "two", "three"])
    act(() => notices.current.notify({ text: name, undo: () => undone.push(name) }));
  act(() => notices.current.notify({ text: "without" }));
  // Pressed quickly, before anything is drawn.
  act(() => {
    notices.current.undoLast();
    notices.current.undoLast();
  });
  expect(undone).toEqual(["three", "two"]);
  act(() => notices.current.undoLast());
  act(() => notices.current.undoLast());
  expect(undone).toEqual(["three", "two", "one"]);
});

it("says what the server explained, and something to do where nobody explained it", async () => {
  const notices = opened();
  act(() =>
    notices.current.fail(new ExplainedError({ message: "It is full.", hint: "Free some." })),
  );
  expect(await screen.findByText("It is full.", {}, LOADED)).toBeTruthy();
  expect(screen.getByText("Free some.")).toBeTruthy();
  act(() => notices.current.fail(new TypeError("x is undefined")));
  expect(screen.getByText("That did not work.")).toBeTruthy();
  expect(screen.queryByText(/x is undefined/)).toBeNull();
});

it("needs its provider", () => {
  expect(() => renderHook(() => useNotices())).toThrow("NoticeProvider");
});

it("still undoes a deed whose notice has gone, once, and says what it was", async () => {
  const notices = opened();
  const undone: string[] = [];
  act(() => notices.current.notify({ text: "Rejected.", undo: () => undone.push("reject") }));
  const close = await screen.findByText("Undo", {}, LOADED);
  expect(close).toBeTruthy();
  for (let one = 0; one < 40; one += 1) act(() => notices.current.notify({ text: `later ${one}` }));
  expect(screen.queryByText("Rejected.")).toBeNull();
  act(() => notices.current.undoLast());
  act(() => notices.current.undoLast());
  expect(undone).toEqual(["reject"]);
});

it("undoes what was not answered yet after its answer, and says nothing of it before", async () => {
  const notices = opened();
  const undone: string[] = [];
  let answer: () => void = () => undefined;
  const work = new Promise<void>((go) => (answer = go));
  act(() => notices.current.notify({ text: "before", undo: () => undone.push("before") }));
  act(() => notices.current.tell(work, { text: "Filed.", undo: () => undone.push("filed") }));
  act(() => notices.current.undoLast());
  expect(undone).toEqual([]);
  await act(async () => answer());
  expect(undone).toEqual(["filed"]);
  expect(screen.queryByText("Filed.")).toBeNull();
  act(() => notices.current.tell(Promise.reject(new Error("x")), { text: "Kept.", undo: () => 0 }));
  expect(await screen.findByText("That did not work.", {}, LOADED)).toBeTruthy();
  act(() => notices.current.undoLast());
  expect(undone).toEqual(["filed", "before"]);
});
