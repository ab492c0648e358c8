// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import type { ShotItem } from "../../api/outings";
import { ShotStrip } from "./ShotStrip";

vi.mock("../../ui/useWidth", () => ({ useWidth: () => [() => undefined, 800] }));
vi.mock("./ShotFrame", () => ({ ShotFrame: () => <i /> }));

const SHOTS = [1, 2].map((id) => ({
  id,
  state: "open",
  move_words: "still",
  got: 0,
  shot: { subject: `shot ${id}`, size: "wide", seconds: 4, part: "what", takes: 1 },
})) as unknown as ShotItem[];

afterEach(cleanup);

it("lets a pointer choose a shot where the order is worked out, and nothing is dragged", () => {
  const chosen = vi.fn();
  render(<ShotStrip shots={SHOTS} chosen={null} marked={new Set()} onChoose={chosen} />);
  const [, second] = screen.getAllByRole("button");
  fireEvent.click(second as Element, { detail: 1 });
  expect(chosen).toHaveBeenCalledWith(2);
});
