import type { PlannedShot } from "../../api/outings";

export const SIZES = [
  { value: "wide", words: "Wide" },
  { value: "medium", words: "Medium" },
  { value: "close", words: "Close" },
  { value: "detail", words: "Detail" },
] as const satisfies { value: PlannedShot["size"]; words: string }[];

export const HEIGHTS = [
  { value: "ground", words: "Ground" },
  { value: "low", words: "Low" },
  { value: "eye", words: "Eye" },
  { value: "above", words: "Above" },
] as const satisfies { value: PlannedShot["height"]; words: string }[];

export const MOVES = [
  { value: "still", words: "Still" },
  { value: "pan", words: "Pan" },
  { value: "tilt", words: "Tilt" },
  { value: "slide", words: "Slide" },
  { value: "push_in", words: "Push in" },
  { value: "pull_out", words: "Pull out" },
  { value: "orbit", words: "Orbit" },
  { value: "rise", words: "Rise" },
  { value: "walk", words: "Walk" },
] as const satisfies { value: PlannedShot["move"]; words: string }[];

/** Ways that each move can go, the usual one first. */
export const HEADINGS: Record<PlannedShot["move"], NonNullable<PlannedShot["heading"]>[]> = {
  still: [],
  pan: ["left", "right"],
  tilt: ["up", "down"],
  slide: ["left", "right"],
  push_in: ["in"],
  pull_out: ["out"],
  orbit: ["left", "right"],
  rise: ["up", "down"],
  walk: ["in", "out", "left", "right"],
};

export const PARTS = [
  { value: "where", words: "Where we are" },
  { value: "who", words: "Who" },
  { value: "what", words: "What" },
  { value: "detail", words: "A detail" },
  { value: "leaving", words: "Leaving" },
] as const satisfies { value: PlannedShot["part"]; words: string }[];

export const JOININGS = [
  { value: "cut", words: "Plain cut" },
  { value: "motion", words: "Motion goes on" },
  { value: "sweep", words: "Sweep" },
  { value: "answer", words: "Answers the shot before" },
] as const satisfies { value: PlannedShot["joins"]; words: string }[];

export const LIGHTS = [
  { value: "any", words: "Any light" },
  { value: "morning", words: "Morning" },
  { value: "noon", words: "Noon" },
  { value: "evening", words: "Evening" },
  { value: "night", words: "Night" },
  { value: "inside", words: "Inside" },
] as const satisfies { value: PlannedShot["light"]; words: string }[];

/** The drill whose body shows how a move is made. */
export const DRILL_OF_MOVE: Record<PlannedShot["move"], string> = {
  still: "hands",
  pan: "pan",
  tilt: "tilt",
  slide: "slide",
  push_in: "push-pull",
  pull_out: "push-pull",
  orbit: "orbit",
  rise: "rise",
  walk: "walk-forward",
};

/** What is not drawn: how it is told beside a frame. */
export function besideFrame(shot: PlannedShot): string[] {
  return [
    ...(shot.enters ? ["it comes into the frame"] : []),
    ...(shot.playback < 1 ? [`${Math.round(100 * shot.playback)} % speed`] : []),
    ...(shot.sound ? ["sound"] : []),
    ...(shot.takes > 1 ? [`${shot.takes} takes`] : []),
    ...(shot.ask ? [`ask ${shot.ask}`] : []),
  ];
}

/** All that a frame shows, for who cannot see it. */
export function frameWords(shot: PlannedShot, move_words: string): string {
  const height = {
    ground: "from the ground",
    low: "from low",
    eye: "at eye level",
    above: "from above",
  };
  return [
    `${shot.size} of ${shot.subject}`,
    height[shot.height],
    move_words,
    ...(shot.foreground ? [`${shot.foreground} in front`] : []),
    ...besideFrame(shot),
  ].join(", ");
}
