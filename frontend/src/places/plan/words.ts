import type { Drill } from "../../api/practice";

export const FAMILY_WORDS = {
  standing: "Standing",
  strap: "Strap",
  weight: "Weight and balance",
  planted: "Planted moves",
  walking: "Walking",
  leaning: "Leaning and bracing",
  monopod: "Monopod and poles",
  other: "Other",
} as const satisfies Record<Drill["family"], string>;

export const NEED_WORDS = {
  strap: "Strap",
  weight: "Something as weight",
  top_handle: "Top handle",
  monopod: "Monopod",
  pole: "Walking pole",
  cloth: "Hat or cloth",
  tripod: "Small tripod",
  blanket: "Blanket",
  helper: "Someone to pull",
  vehicle: "Vehicle, as a passenger",
  long_lens: "Long lens",
  zoom: "Zoom lens",
  lean: "Wall or table",
  even_ground: "Even ground",
  smooth_floor: "Smooth floor",
} as const satisfies Record<Drill["needs"][number], string>;

export const LOAD_WORDS = {
  neck: "Neck",
  shoulders: "Shoulders",
  wrist: "Wrist",
  back: "Back",
  knees: "Knees",
} as const satisfies Record<Drill["loads"][number], string>;

export const SPACE_WORDS = {
  spot: "Room to stand",
  steps: "A few steps",
  path: "A path to walk along",
} as const satisfies Record<Drill["space"], string>;

export const MEASURE_WORDS = {
  jitter: "Tremble (jitter)",
  sway: "Sway",
  step: "Footfalls (step)",
  buzz: "Buzz",
  evenness: "Even speed",
  centring: "Subject in the middle",
  dip: "Dip",
} as const satisfies Record<Drill["measures"], string>;

export const TEMPO_WORDS = {
  none: "No tempo",
  walk: "Beats for the walk",
  move: "Pace of the move",
  breath: "Breath cue",
} as const satisfies Record<Drill["tempo"], string>;

/** Options of a select from words. */
export function optionsOf<T extends string>(words: Record<T, string>) {
  return (Object.keys(words) as T[]).map((value) => ({ value, words: words[value] }));
}
