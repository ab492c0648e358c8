import { describe, expect, it } from "vitest";
import { withUnit } from "../../../units";
import { moveFacts } from "./moveFacts";
import { across, halfView, heading, MOVES, type MoveAsk } from "./moves";
import type { Move } from "./types";

const say = (quantity: Parameters<typeof withUnit>[0], value: number | null | undefined) =>
  withUnit(quantity, value, "metric");
const move = {
  kind: "slide", extent_pct: -12, extent_deg: null, speed_pct_s: -2.4, speed_deg_s: null,
  speed_m_s: -0.1, crosses_s: 41.7, needed_s: 0.8, hurried: false, travel_m: -0.5,
  counter_turn_deg: -9.5, foreground_pct: -36, subject_pct: -12, background_pct: -1.2, dip_m: null,
  dip_pct: null, step_m: null, horizon_deg: null, focal_to_mm: null, subject_scale: null,
  background_scale: null, stations: [], foreground_seen: [], subject_seen: [], background_seen: [],
} as unknown as Move; // prettier-ignore

describe("figures of a move", () => {
  it("say only what the move has, without signs where only size counts", () => {
    const facts = moveFacts(move, { kind: "slide" } as MoveAsk, say);
    expect(facts[0]).toEqual({ words: "Crosses the frame", value: "12.0 %" });
    expect(facts.map((fact) => fact.words)).not.toContain("Horizon tips");
    expect(facts.find((fact) => fact.words.startsWith("Foreground"))?.value).toBe(
      "−36 · −12 · −1 %",
    );
  });
  it("warn of a dip and a tipped horizon", () => {
    const lean = { ...move, dip_m: 0.05, dip_pct: 1.2, horizon_deg: 15 };
    const warned = moveFacts(lean, { kind: "monopod_lean" } as MoveAsk, say).filter((f) => f.warns);
    expect(warned.map((fact) => fact.words)).toEqual(["Dips", "Horizon tips"]);
  });
});

describe("drawing a move", () => {
  const station = {
    share: 0, x_m: 1, y_m: 2, z_m: 3, yaw_deg: 90, pitch_deg: 45, roll_deg: 0, focal_mm: 18,
  }; // prettier-ignore
  it("looks from above at pans, from the side at tilts", () => {
    expect(across("plan", station)).toEqual({ x: 1, y: 3 });
    expect(across("side", station)).toEqual({ x: 2, y: 3 });
    expect(heading("plan", station)).toBeCloseTo(Math.PI / 2);
    expect(heading("side", station)).toBeCloseTo(Math.PI / 4);
    expect(halfView("plan", 18, 0.5625)).toBeCloseTo(Math.PI / 4);
    expect(halfView("side", 18, 0.5625)).toBeLessThan(Math.PI / 4);
  });
  it("begins every move with an amount in its own range", () => {
    for (const words of Object.values(MOVES)) {
      expect(words.usual).toBeGreaterThanOrEqual(words.range.min);
      expect(words.usual).toBeLessThanOrEqual(words.range.max);
    }
  });
});
