import type { Bench } from "../../../api/kit";
import type { Move } from "./types";
import type { Quantity } from "../../../units";
import type { Range } from "../../../ui/QuantityField";

export type MoveAsk = Bench["move"];
type Kind = MoveAsk["kind"];
type Words = {
  words: string;
  amount: string;
  quantity: Quantity;
  range: Range;
  usual: number;
  asks: ("leg" | "cadence" | "pole")[];
  view: "plan" | "side" | "front";
  /** The drill that practises it, and from where its body tells most. */
  drill: string;
  body: "side" | "front";
};
const METRES: Pick<Words, "quantity" | "range" | "usual"> = {
  quantity: "distance_m",
  range: { min: 0.05, max: 2 },
  usual: 0.5,
};

/** What each move asks, and from where it is best drawn. */
export const MOVES: Record<Kind, Words> = {
  pan: { words: "Pan", drill: "pan", body: "front", amount: "Turn to the right", quantity: "degrees", range: { min: -90, max: 90 }, usual: 20, asks: [], view: "plan" },
  tilt: { words: "Tilt", drill: "tilt", body: "side", amount: "Turn upwards", quantity: "degrees", range: { min: -45, max: 45 }, usual: 12, asks: [], view: "side" },
  slide: { words: "Slide", drill: "slide", body: "front", amount: "To the right", ...METRES, asks: [], view: "plan" },
  push_in: { words: "Push-in", drill: "push-pull", body: "side", amount: "Forwards", ...METRES, asks: ["leg"], view: "plan" },
  orbit: { words: "Orbit", drill: "orbit", body: "front", amount: "Shift of weight", ...METRES, asks: [], view: "plan" },
  rise: { words: "Rise", drill: "rise", body: "side", amount: "Upwards", ...METRES, asks: [], view: "side" },
  walk: { words: "Walk", drill: "walk-forward", body: "side", amount: "Forwards", quantity: "distance_m", range: { min: 0.5, max: 10 }, usual: 1.5, asks: ["leg", "cadence"], view: "plan" },
  zoom_step: { words: "Zoom against a step", drill: "zoom-step", body: "side", amount: "Step in", ...METRES, asks: [], view: "plan" },
  monopod_lean: { words: "Monopod lean", drill: "monopod-lean", body: "front", amount: "Lean to the right", quantity: "degrees", range: { min: -40, max: 40 }, usual: 12, asks: ["pole"], view: "front" },
}; // prettier-ignore

export const MOVE_OPTIONS = (Object.keys(MOVES) as Kind[]).map((value) => ({
  value,
  words: MOVES[value].words,
}));

export type Point = { x: number; y: number };

/** Where a camera and a thing stand in a drawing seen from above or from the side, in metres. */
export function across(view: Words["view"], station: Move["stations"][number]): Point {
  if (view === "side") return { x: station.y_m, y: station.z_m };
  return { x: station.x_m, y: station.z_m };
}

/** Heading in that drawing, radians from straight ahead towards growing x. */
export function heading(view: Words["view"], station: Move["stations"][number]): number {
  const degrees = view === "side" ? station.pitch_deg : station.yaw_deg;
  return (degrees * Math.PI) / 180;
}

/** Half the angle of view, radians, along the drawing's width. */
export function halfView(view: Words["view"], focal_mm: number, aspect: number): number {
  return Math.atan((18 * (view === "side" ? aspect : 1)) / focal_mm);
}
