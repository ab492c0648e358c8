// @vitest-environment happy-dom
import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, expect, it } from "vitest";
import type { TakeLine } from "../../../api/client";
import { usePicks } from "./usePicks";

const lines = (...ids: number[]) => ids.map((id) => ({ id }) as TakeLine);
const opened = (...ids: number[]) =>
  renderHook(({ takes }) => usePicks(takes), { initialProps: { takes: lines(...ids) } });

afterEach(cleanup);

it("picks one after the other, and lets go of one that is picked again", () => {
  const { result } = opened(5, 4, 3);
  act(() => result.current.pick(3));
  act(() => result.current.pick(5));
  expect(result.current.ids).toEqual([5, 3]); // as they are listed
  act(() => result.current.pick(3));
  expect(result.current.ids).toEqual([5]);
});

it("stretches from the one that was picked last, upwards and downwards", () => {
  const { result } = opened(9, 8, 7, 6, 5);
  act(() => result.current.pick(7));
  act(() => result.current.pick(9, true));
  expect(result.current.ids).toEqual([9, 8, 7]);
  act(() => result.current.pick(6, true));
  expect(result.current.ids).toEqual([9, 8, 7, 6]);
});

it("begins a stretch with itself where nothing was picked", () => {
  const { result } = opened(9, 8, 7);
  act(() => result.current.pick(8, true));
  expect(result.current.ids).toEqual([8]);
});

it("keeps what is picked while the list is narrowed, and in its order when it is turned", () => {
  const { result, rerender } = opened(3, 2, 1);
  act(() => result.current.pickAll([1, 3]));
  rerender({ takes: lines(1) });
  expect(result.current.ids).toEqual([1, 3]);
  rerender({ takes: lines(1, 2, 3) });
  expect(result.current.ids).toEqual([1, 3]);
  act(() => result.current.clear());
  expect(result.current.ids).toEqual([]);
});
