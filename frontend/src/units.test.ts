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
