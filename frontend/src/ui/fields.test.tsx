// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { useState } from "react";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import type { Quantity } from "../units";
import { NumberField } from "./NumberField";
import { NumbersField } from "./NumbersField";
import { QuantityField, sentence } from "./QuantityField";
import { UnitsProvider } from "./useUnits";

beforeEach(() => localStorage.clear());
afterEach(cleanup);

const field = () => screen.getByRole<HTMLInputElement>("textbox");
const type = (text: string) => fireEvent.change(field(), { target: { value: text } });
const told = () => screen.queryByRole("alert")?.textContent ?? "";

describe("a quantity", () => {
  function open(quantity: Quantity, value: number | null, more: { problem?: string } = {}) {
    const taken: (number | null)[] = [];
    function Page() {
      const [kept, setKept] = useState(value);
      const put = (next: number | null) => {
        taken.push(next);
        setKept(next);
      };
      return (
        <UnitsProvider>
          <QuantityField
            label="Length"
            quantity={quantity}
            value={kept}
            optional
            onChange={put}
            {...more}
          />
        </UnitsProvider>
      );
    }
    render(<Page />);
    return taken;
  }

  it("is taken over as it is typed, and shown in order once it is left", () => {
    const taken = open("body_mm", 1200);
    expect(field().value).toBe("120");
    type("121,5");
    expect(taken).toEqual([1215]);
    expect(field().value).toBe("121,5");
    fireEvent.blur(field());
    expect(field().value).toBe("121.5");
  });

  it("keeps what is no number, says so, and takes nothing over", () => {
    const taken = open("body_mm", 1200);
    type("long");
    fireEvent.blur(field());
    expect([field().value, told(), taken]).toEqual(["long", "Type a number.", []]);
    expect(field().getAttribute("aria-invalid")).toBe("true");
    expect(field().dataset["unread"]).toBe("true");
    fireEvent.keyDown(field(), { key: "Escape" });
    expect([field().value, told()]).toEqual(["120", ""]);
  });

  it("is not known where nothing stands in it", () => {
    const taken = open("body_mm", 1200);
    type("");
    expect(taken).toEqual([null]);
    expect(told()).toBe("");
    expect(field().placeholder).toBe("not known");
  });

  it("is shown and typed in inches by those who chose them, and kept in millimetres", () => {
    localStorage.setItem("ridgewind-units", "imperial");
    const taken = open("body_mm", 254);
    expect(field().value).toBe("10");
    type("11");
    expect(taken[0]).toBeCloseTo(279.4);
  });

  it("says a rule that it broke in the unit that it shows, as a sentence", () => {
    open("body_mm", 9999, { problem: "it must be between 0 and 2000 mm" });
    expect(told()).toBe("It must be between 0 and 200 cm.");
    expect(sentence("Already one.")).toBe("Already one.");
  });
});

describe("a number", () => {
  const open = (taken: number[]) =>
    render(
      <NumberField label="Seconds" unit="s" value={5} min={1} max={60} onChange={(n) => taken.push(n)} />,
    ); // prettier-ignore

  it("is taken over on Enter or on leaving, once, where it changed", () => {
    const taken: number[] = [];
    open(taken);
    type("7.5");
    expect(taken).toEqual([]);
    fireEvent.keyDown(field(), { key: "Enter" });
    fireEvent.blur(field());
    type("5");
    fireEvent.blur(field());
    expect(taken).toEqual([7.5]);
  });

  it("is refused with its range", () => {
    const taken: number[] = [];
    open(taken);
    for (const wrong of ["0", "61", "", "x"]) {
      type(wrong);
      expect(told()).toBe("1 to 60");
    }
    fireEvent.blur(field());
    expect([taken, field().value]).toEqual([[], "5"]);
  });
});

it("several numbers are taken over as they become numbers", () => {
  let taken: number[] = [];
  render(<NumbersField label="Rates" values={[24, 25]} onChange={(next) => (taken = next)} />);
  expect(field().value).toBe("24, 25");
  type("24; 29.97 and 50,");
  expect(taken).toEqual([24, 29.97, 50]);
  expect(field().value).toBe("24; 29.97 and 50,");
  fireEvent.blur(field());
  expect(field().value).toBe("24, 25");
});
