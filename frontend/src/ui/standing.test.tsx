// @vitest-environment happy-dom
import { act, cleanup, fireEvent, render, renderHook, screen } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { ErrorBoundary } from "./ErrorBoundary";
import { useArrival } from "./useArrival";

afterEach(() => {
  cleanup();
  document.body.innerHTML = "";
  vi.restoreAllMocks();
});

it("a page that broke says so, leaves the rest standing, and is drawn again", () => {
  vi.spyOn(console, "error").mockImplementation(() => undefined);
  let broken = true;
  function Page() {
    if (broken) throw new TypeError("x is undefined");
    return <p>The page</p>;
  }
  render(
    <>
      <p>The trail</p>
      <ErrorBoundary>
        <Page />
      </ErrorBoundary>
    </>,
  );
  expect(screen.getByRole("alert").textContent).toContain("x is undefined");
  expect(screen.getByText("The trail")).toBeTruthy();
  broken = false;
  fireEvent.click(screen.getByRole("button", { name: "Draw it again" }));
  expect(screen.getByText("The page")).toBeTruthy();
  expect(screen.queryByRole("alert")).toBeNull();
});

const settled = () => act(() => new Promise((resolve) => setTimeout(resolve, 5)));
const main = () => document.getElementById("main") as HTMLElement;
const focused = () => document.activeElement?.textContent;

beforeEach(() => {
  document.body.innerHTML = '<button>Trail</button><main id="main" tabindex="-1"></main>';
});

/** Go from a first page to another one. */
function arrived() {
  const view = renderHook(({ path }) => useArrival(path), { initialProps: { path: "/takes" } });
  return (path: string) => view.rerender({ path });
}

it("the heading of a new page has the focus as soon as it is there, not that of the first", async () => {
  main().innerHTML = "<h1>Takes</h1>";
  const go = arrived();
  await settled();
  expect(focused()).not.toBe("Takes");
  main().innerHTML = "<p>Opening…</p>";
  go("/plan");
  await settled();
  main().innerHTML = "<h1>Plan</h1>";
  await settled();
  expect(focused()).toBe("Plan");
});

it("the heading that takes its place has it next, and nothing that somebody chose loses it", async () => {
  const go = arrived();
  main().innerHTML = "<h1>Opening</h1>";
  go("/plan");
  expect(focused()).toBe("Opening");
  main().innerHTML = "<h1>Plan</h1><button>Keep</button>";
  await settled();
  expect(focused()).toBe("Plan");
  main().querySelector("button")?.focus();
  main().querySelector("h1")?.append("!");
  await settled();
  expect(focused()).toBe("Keep");
});

it("a page that puts the focus into a field keeps it there", async () => {
  const go = arrived();
  main().innerHTML = "<h1>Plan</h1><input id='name' />";
  document.getElementById("name")?.focus();
  go("/plan");
  await settled();
  expect(document.activeElement?.id).toBe("name");
});
