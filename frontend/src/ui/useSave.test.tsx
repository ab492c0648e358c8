// @vitest-environment happy-dom
import { act, cleanup, renderHook, screen } from "@testing-library/react";
import { afterEach, expect, it } from "vitest";
import { ExplainedError } from "../api/client";
import { NoticeProvider } from "./notices";
import { useSave } from "./useSave";

const opened = () => renderHook(() => useSave(), { wrapper: NoticeProvider });
const refused = (body: Partial<ExplainedError>) =>
  new ExplainedError({ message: "It must be less.", hint: "Take less.", ...body } as never);

/** What shows notices is loaded with the first of them. */
const LOADED = { timeout: 20_000 };

afterEach(() => {
  cleanup();
  document.body.innerHTML = "";
});

it("hands on what was kept, and is busy meanwhile", async () => {
  const { result } = opened();
  const saved: number[] = [];
  let answer: (kept: number) => void = () => {};
  const sent = new Promise<number>((resolve) => (answer = resolve));
  act(() => void result.current.save(() => sent, (kept) => saved.push(kept))); // prettier-ignore
  expect(result.current.saving).toBe(true);
  await act(async () => answer(3));
  expect(saved).toEqual([3]);
  expect(result.current.saving).toBe(false);
});

it("sends once, however often it is pressed, and again afterwards", async () => {
  const { result } = opened();
  let count = 0;
  const send = () => Promise.resolve((count += 1));
  await act(() =>
    Promise.all([result.current.save(send, () => {}), result.current.save(send, () => {})]),
  );
  expect(count).toBe(1);
  await act(() => result.current.save(send, () => {}));
  expect(count).toBe(2);
});

it("puts a fault at its field, by the last of its names too, until the next attempt passes", async () => {
  const { result } = opened();
  const fault = refused({ field: "optics.focal_mm" });
  await act(() => result.current.save(() => Promise.reject(fault), () => {})); // prettier-ignore
  expect(result.current.problem("focal_mm")).toBe("It must be less.");
  expect(result.current.problem("optics.focal_mm")).toBe("It must be less.");
  expect(result.current.problem("mm")).toBeUndefined();
  expect(result.current.saving).toBe(false);
  await act(() => result.current.save(() => Promise.resolve(1), () => {})); // prettier-ignore
  expect(result.current.problem("focal_mm")).toBeUndefined();
});

it("tells any other fault in a notice, but what was changed elsewhere where both are shown", async () => {
  const { result } = opened();
  const elsewhere = refused({ message: "Changed elsewhere.", code: "changed_elsewhere" });
  await act(() => result.current.save(() => Promise.reject(elsewhere), () => {})); // prettier-ignore
  expect(screen.queryByText("Changed elsewhere.")).toBeNull();
  const other = refused({ message: "The disk is full." });
  await act(() => result.current.save(() => Promise.reject(other), () => {})); // prettier-ignore
  expect(await screen.findByText("The disk is full.", {}, LOADED)).toBeTruthy();
});

it("sends nothing while a field cannot be read, and goes to it", async () => {
  const main = document.createElement("main");
  main.innerHTML = '<input data-unread="false" /><input data-unread="true" id="bad" />';
  document.body.append(main);
  const { result } = opened();
  let count = 0;
  await act(() => result.current.save(() => Promise.resolve((count += 1)), () => {})); // prettier-ignore
  expect(count).toBe(0);
  expect(document.activeElement?.id).toBe("bad");
});
