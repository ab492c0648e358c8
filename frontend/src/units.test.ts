import { describe, expect, it } from "vitest";
import { fromShown, limitsInShown, QUANTITIES, toShown, withUnit, type Quantity } from "./units";

describe("units", () => {
  it("convert what is shown and never what is kept", () => {
    expect(withUnit("mass_g", 453.59237, "metric")).toBe("454 g");
    expect(withUnit("mass_g", 453.59237, "imperial")).toBe("16.0 oz");
    expect(withUnit("distance_m", 3.048, "imperial")).toBe("10 ft");
    expect(withUnit("body_mm", 1220, "metric")).toBe("122.0 cm");
    expect(withUnit("optics_mm", 35, "imperial")).toBe("35 mm");
    expect(withUnit("optics_mm", 26.36, "metric")).toBe("26.4 mm");
    expect(withUnit("rate", 29.97, "metric")).toBe("29.97/s");
    expect(withUnit("hertz", 0.254, "metric")).toBe("0.25 Hz");
    expect(withUnit("hertz", 8, "metric")).toBe("8.0 Hz");
    expect(withUnit("degrees", -0.01, "metric")).toBe("0.0°");
    expect(withUnit("seconds", null, "metric")).toBe("–");
  });
  it("come back from entry as they went", () => {
    for (const quantity of Object.keys(QUANTITIES) as Quantity[]) {
      for (const system of ["metric", "imperial"] as const) {
        const step =
          10 ** -QUANTITIES[quantity][system].digits / QUANTITIES[quantity][system].factor;
        const back = fromShown(quantity, toShown(quantity, 123.4, system), system);
        expect(Math.abs((back ?? 0) - 123.4)).toBeLessThanOrEqual(0.51 * step);
      }
    }
  });
  it("take a decimal comma and refuse text", () => {
    expect(fromShown("distance_m", "2,5", "metric")).toBe(2.5);
    expect(fromShown("distance_m", "−1", "metric")).toBe(-1);
    for (const typed of ["", "two", "1e9", "1.2.3", "Infinity", "0x10"]) {
      expect(fromShown("distance_m", typed, "metric")).toBeNull();
    }
  });
  it("say a range in the unit that is shown", () => {
    const words = "It must be between 0.05 and 100000 m.";
    expect(limitsInShown(words, "distance_m", "imperial")).toBe(
      "It must be between 0.165 and 328000 ft.",
    );
    expect(limitsInShown(words, "distance_m", "metric")).toBe(words);
    expect(limitsInShown("between 0 and 2000 mm", "body_mm", "metric")).toBe(
      "between 0 and 200 cm",
    );
    expect(limitsInShown("It needs a name", "mass_g", "imperial")).toBe("It needs a name");
    for (const end of ["0.165", "328000"]) {
      const kept = fromShown("distance_m", end, "imperial") ?? 0;
      expect(kept).toBeGreaterThanOrEqual(0.05);
      expect(kept).toBeLessThanOrEqual(100000);
    }
  });
});

describe("any quantity in any system", () => {
  const every = (Object.keys(QUANTITIES) as Quantity[]).flatMap((quantity) =>
    (["metric", "imperial"] as const).map((system) => [quantity, system] as const),
  );

  it("comes back from its field within half of its last digit", () => {
    for (const [quantity, system] of every) {
      const { digits, factor } = QUANTITIES[quantity][system];
      const step = 10 ** -digits / factor;
      for (const kept of [0, 0.07, 1, 9.995, 31.7, 480, 12_345.6, -3.2]) {
        const back = fromShown(quantity, toShown(quantity, kept, system), system);
        expect(back).not.toBeNull();
        expect(Math.abs((back ?? NaN) - kept)).toBeLessThanOrEqual(0.51 * step);
      }
    }
  });
  it("is told with its unit, without a minus before nothing", () => {
    for (const [quantity, system] of every) {
      const { unit } = QUANTITIES[quantity][system];
      for (const value of [0, -1e-9, 2.5, -2.5]) {
        const told = withUnit(quantity, value, system);
        expect(told.endsWith(unit)).toBe(true);
        expect(told).not.toContain("-");
        if (value > -1) expect(told).not.toMatch(/^−0(\.0*)?( |$|[^.\d])/);
      }
      for (const none of [null, undefined, NaN, Infinity])
        expect(withUnit(quantity, none, system)).toBe("–");
    }
  });
  it("takes what is typed to and fro without drifting", () => {
    for (const typed of ["5.5", "0.3", "12"]) {
      let text = typed;
      for (let turn = 0; turn < 20; turn++) {
        const kept = fromShown("distance_m", text, "imperial") ?? NaN;
        text = toShown("distance_m", kept, "imperial");
      }
      expect(text).toBe(typed);
    }
  });
  it("tells ranges that its field then allows", () => {
    for (const [low, high] of [[0.05, 3], [12, 480], [-300, 300], [0, 1e6]] as const) {
      const words = limitsInShown(`between ${low} and ${high} mm`, "size_mm", "imperial");
      const [from = NaN, to = NaN] = (words.match(/-?[\d.]+/g) ?? []).map(Number);
      expect(fromShown("size_mm", String(from), "imperial")).toBeGreaterThanOrEqual(low - 1e-9);
      expect(fromShown("size_mm", String(to), "imperial")).toBeLessThanOrEqual(high + 1e-9);
    } // prettier-ignore
  });
});
