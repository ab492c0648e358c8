// @vitest-environment happy-dom
import { cleanup, fireEvent, render } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { useDrag } from "./useDrag";

type Log = string[];

function Surface({ log, takes = true }: { log: Log; takes?: boolean }) {
  const drag = useDrag<string>({
    onStart: ({ x, y }) => {
      log.push(`start ${x} ${y}`);
      return takes ? "thing" : null;
    },
    onMove: ({ x, y }, held) => log.push(`move ${held} ${x} ${y}`),
    onEnd: ({ x, y }, held) => log.push(`end ${held} ${x} ${y}`),
    onCancel: () => log.push("cancel"),
  });
  return <div data-testid="surface" {...drag} />;
}

function opened(takes = true) {
  const log: Log = [];
  const surface = render(<Surface log={log} takes={takes} />).getByTestId("surface");
  surface.getBoundingClientRect = () => new DOMRect(10, 20, 100, 100);
  const capture = vi.fn();
  surface.setPointerCapture = capture;
  return { log, surface, capture };
}
const at = (x: number, y: number, more = {}) => ({ clientX: x, clientY: y, pointerId: 4, ...more });

afterEach(cleanup);

it("tells places on the surface from the first touch to the last", () => {
  const { log, surface, capture } = opened();
  fireEvent.pointerMove(surface, at(12, 22));
  fireEvent.pointerDown(surface, at(15, 25));
  fireEvent.pointerMove(surface, at(40, 50));
  fireEvent.pointerUp(surface, at(210, 0));
  fireEvent.pointerMove(surface, at(50, 60));
  expect(log).toEqual(["start 5 5", "move thing 30 30", "end thing 200 -20"]);
  expect(capture).toHaveBeenCalledWith(4);
});

it("lets a pointer go by that takes hold of nothing, and any but the main button", () => {
  const { log, surface, capture } = opened(false);
  fireEvent.pointerDown(surface, at(15, 25));
  fireEvent.pointerMove(surface, at(40, 50));
  fireEvent.pointerUp(surface, at(40, 50));
  expect(log).toEqual(["start 5 5"]);
  expect(capture).not.toHaveBeenCalled();
  cleanup();
  const other = opened();
  fireEvent.pointerDown(other.surface, at(15, 25, { button: 2 }));
  expect(other.log).toEqual([]);
});

it("is cancelled once, and ends nothing afterwards", () => {
  const { log, surface } = opened();
  fireEvent.pointerDown(surface, at(15, 25));
  fireEvent.pointerCancel(surface, at(15, 25));
  fireEvent.pointerUp(surface, at(15, 25));
  expect(log).toEqual(["start 5 5", "cancel"]);
});
