// @vitest-environment happy-dom
import { cleanup, fireEvent, render } from "@testing-library/react";
import type { ReactNode } from "react";
import { afterEach, beforeEach, expect, it } from "vitest";
import { switchLetters } from "./letters";
import { registered } from "./register";
import { useKeys } from "./useKeys";

const done: string[] = [];
const act = (name: string) => () => void done.push(name);

function Page({ children, first = false }: { children?: ReactNode; first?: boolean }) {
  useKeys(
    {
      "Keep it": { k: act("k") },
      "Go on": { " ": act("space"), Enter: act("enter") },
      "A step": { ArrowRight: act("right"), "Shift+ArrowRight": act("far right") },
      Leave: { Escape: act("escape") },
    },
    { first },
  );
  return <div>{children}</div>;
}

const press = (key: string, target: Element | null = document.body, more = {}) =>
  fireEvent.keyDown(target ?? document.body, { key, ...more });

beforeEach(() => {
  done.length = 0;
  localStorage.clear();
});
afterEach(cleanup);

it("does what is pressed, shifted or not, in either case of a letter", () => {
  render(<Page />);
  press("k");
  press("K", document.body, { shiftKey: true });
  press("ArrowRight");
  press("ArrowRight", document.body, { shiftKey: true });
  press("q");
  expect(done).toEqual(["k", "k", "right", "far right"]);
});

it("leaves the browser's own keys alone", () => {
  render(<Page />);
  for (const held of ["ctrlKey", "metaKey", "altKey"]) press("k", document.body, { [held]: true });
  expect(done).toEqual([]);
});

it("does a thing once while its key is held, and steps on", () => {
  render(<Page />);
  for (const repeat of [false, true, true]) {
    press("k", document.body, { repeat });
    press("ArrowRight", document.body, { repeat });
  }
  expect(done).toEqual(["k", "right", "right", "right"]);
});

it("leaves to a control what it needs", () => {
  const { container } = render(
    <Page>
      <input id="text" />
      <input id="slide" type="range" />
      <input id="tick" type="checkbox" />
      <button id="button">Press</button>
      <a id="link" href="#x">
        Go
      </a>
      <div id="slider" role="slider" aria-valuenow={1} tabIndex={0} />
      <div id="closed" role="combobox" aria-expanded={false} aria-controls="x" tabIndex={0} />
      <ul role="listbox">
        <li id="option" role="option" aria-selected={false} tabIndex={0} />
      </ul>
    </Page>,
  );
  const of = (id: string) => container.querySelector(`#${id}`);
  const mine: [string, string[]][] = [
    ["text", ["k", " ", "Enter", "ArrowRight"]],
    ["tick", [" "]],
    ["button", [" ", "Enter"]],
    ["link", ["Enter"]],
    ["slider", ["ArrowRight"]],
    ["closed", ["k", " "]],
    ["option", ["k", "ArrowRight", "Escape"]],
  ];
  for (const [id, keys] of mine) for (const key of keys) press(key, of(id));
  expect(done).toEqual([]);
  for (const id of ["tick", "button", "link", "slider", "slide"]) press("k", of(id));
  expect(done).toEqual(Array(5).fill("k"));
});

it("takes Escape in a field to leave it, and for no more", () => {
  const { container } = render(
    <Page>
      <input id="text" defaultValue="abc" />
    </Page>,
  );
  const field = container.querySelector<HTMLInputElement>("#text");
  field?.focus();
  press("Escape", field);
  expect(document.activeElement).not.toBe(field);
  expect(field?.value).toBe("abc");
  expect(done).toEqual([]);
  press("Escape");
  expect(done).toEqual(["escape"]);
});

it("does nothing behind a dialog", () => {
  render(
    <Page>
      <div role="dialog" />
    </Page>,
  );
  press("k");
  expect(done).toEqual([]);
});

it("lets single letters be switched off, and keeps the named keys", () => {
  render(<Page />);
  switchLetters(true);
  for (const key of ["k", " ", "ArrowRight"]) press(key);
  expect(done).toEqual(["space", "right"]);
  switchLetters(false);
  press("k");
  expect(done.at(-1)).toBe("k");
});

it("answers a remote before a focused button does", () => {
  const { container } = render(
    <Page first>
      <button>Press</button>
    </Page>,
  );
  press(" ", container.querySelector("button"));
  switchLetters(true);
  press("k");
  expect(done).toEqual(["space", "k"]);
});

it("lists its keys for as long as it is there", () => {
  const { unmount } = render(<Page />);
  expect(registered().map((line) => line.words)).toContain("Keep it");
  expect(registered().find((line) => line.words === "A step")?.keys).toEqual(["→", "Shift →"]);
  unmount();
  expect(registered()).toEqual([]);
  press("k");
  expect(done).toEqual([]);
});

it("does not leave by a key of every page what has its keys first", () => {
  const left: string[] = [];
  function Everywhere() {
    useKeys({ "Go to Takes": { 6: () => left.push("6") } }, { everywhere: true });
    return null;
  }
  const both = (runs: boolean) => (
    <>
      <Everywhere />
      {runs && <Page first />}
    </>
  );
  const { rerender } = render(both(true));
  press("6");
  expect(left).toEqual([]);
  rerender(both(false));
  press("6");
  expect(left).toEqual(["6"]);
});
