import type { PlannedShot } from "../../api/outings";

/** A small frame of a shot, computed from its size, height, move and foreground; see FrameDrawing. */
export const WIDTH = 160;
export const HEIGHT = 90;

/** Height of the camera, in heights of the standing subject. */
const CAMERA: Record<PlannedShot["height"], number> = {
  ground: 0.06,
  low: 0.32,
  eye: 0.93,
  above: 1.6,
};

/** Height of the whole subject and where its top is, in the frame's units. */
const SUBJECT = {
  wide: { tall: 34, top: 42 },
  medium: { tall: 132, top: 15 },
  close: { tall: 300, top: 9 },
} as const;

const PEOPLE =
  /\b(people|person|somebody|someone|man|woman|child|hands?|face|feet|shoulder|crowd|friend|\w+(?:er|or)s?)\b/i;
/** Words that end as those for people do, and stand in front of a camera more often than not. */
const THINGS = new RegExp(
  "\\b(tower|water|river|flower|corner|shutter|ladder|roller|hopper|door|floor|pier|paper|letter" +
    "|mirror|motor|tractor|counter|boulder|feather|poster|computer|propeller|copper|silver|leather" +
    "|weather|winter|summer|cover|lever|gutter|shelter|container|trailer|drawer|heater|crater" +
    "|glacier|timber|bumper|banner|barrier|border|anchor|harbor|razor|sensor)s?\\b",
  "i",
);

/** What follows these says where it is, and no more of what it is. */
const WHERE = /\s(?:at|by|in|on|near|before|behind|under|over|through|against|along|beside)\s/i;

export type Subject = { kind: "person" | "thing"; tall: number; top: number };
export type FrameShape = {
  /** Where the ground meets the sky, 0 to HEIGHT; outside of it only one of them is seen. */
  horizon: number;
  /** Null where a detail fills the frame. */
  subject: Subject | null;
  near: boolean;
};

/**
 * Where things stand. The horizon crosses a standing subject at the camera's own height, whatever the
 * lens: that is what makes a low shot look low.
 */
export function frameOf(shot: PlannedShot): FrameShape {
  if (shot.size === "detail") {
    return {
      horizon: shot.height === "above" ? -10 : HEIGHT + 10,
      subject: null,
      near: shot.foreground !== "",
    };
  }
  const { tall, top } = SUBJECT[shot.size];
  const feet = top + tall;
  return {
    horizon: Math.max(-10, Math.min(HEIGHT + 10, feet - CAMERA[shot.height] * tall)),
    subject: { kind: isPerson(shot) ? "person" : "thing", tall, top },
    near: shot.foreground !== "",
  };
}

/** Whether the words of a shot speak of somebody. */
export function isPerson(shot: PlannedShot): boolean {
  const [itself = ""] = shot.subject.split(WHERE);
  return PEOPLE.test(itself) && !THINGS.test(itself);
}

/** A standing person, in heights of the body about the middle of the feet: a path. */
export function personPath({ tall, top }: Subject, x: number): string {
  const at = (dx: number, y: number) =>
    `${(x + dx * tall).toFixed(1)} ${(top + y * tall).toFixed(1)}`;
  const r = (0.062 * tall).toFixed(1);
  return [
    `M${at(-0.062, 0.075)}a${r} ${(0.075 * tall).toFixed(1)} 0 1 1 ${(0.124 * tall).toFixed(1)} 0`,
    `a${r} ${(0.075 * tall).toFixed(1)} 0 1 1 ${(-0.124 * tall).toFixed(1)} 0`,
    `M${at(-0.04, 0.14)}L${at(0.04, 0.14)}L${at(0.05, 0.18)}L${at(0.13, 0.21)}L${at(0.15, 0.5)}`,
    `L${at(0.1, 0.5)}L${at(0.09, 0.52)}L${at(0.08, 1)}L${at(0.015, 1)}L${at(0, 0.58)}L${at(-0.015, 1)}`,
    `L${at(-0.08, 1)}L${at(-0.09, 0.52)}L${at(-0.1, 0.5)}L${at(-0.15, 0.5)}L${at(-0.13, 0.21)}L${at(-0.05, 0.18)}Z`,
  ].join("");
}

/** A thing that stands, wider below: a path. */
export function thingPath({ tall, top }: Subject, x: number): string {
  const at = (dx: number, y: number) =>
    `${(x + dx * tall).toFixed(1)} ${(top + y * tall).toFixed(1)}`;
  return `M${at(-0.27, 1)}L${at(-0.17, 0.2)}Q${at(-0.16, 0)} ${at(0, 0)}Q${at(0.16, 0)} ${at(0.17, 0.2)}L${at(0.27, 1)}Z`;
}

/** Hills where the sky meets the ground. */
export function hillsPath(horizon: number): string {
  const y = (up: number) => (horizon - up).toFixed(1);
  return `M0 ${y(0)}L0 ${y(9)}Q18 ${y(16)} 40 ${y(8)}T84 ${y(10)}T128 ${y(5)}Q146 ${y(3)} 160 ${y(12)}L160 ${y(0)}Z`;
}

export type Arrow = { d: string; dashed: boolean };

/** Line and head of an arrow, from one point to another, bent to one side by so much. */
function arrow(from: [number, number], to: [number, number], bend = 0): string {
  const [x0, y0] = from;
  const [x1, y1] = to;
  const [dx, dy] = [x1 - x0, y1 - y0];
  const length = Math.hypot(dx, dy) || 1;
  const [cx, cy] = [(x0 + x1) / 2 + (bend * dy) / length, (y0 + y1) / 2 - (bend * dx) / length];
  const angle = Math.atan2(y1 - cy, x1 - cx);
  const tip = (turn: number) =>
    `${(x1 - 6 * Math.cos(angle + turn)).toFixed(1)} ${(y1 - 6 * Math.sin(angle + turn)).toFixed(1)}`;
  return `M${x0} ${y0}Q${cx.toFixed(1)} ${cy.toFixed(1)} ${x1} ${y1}M${tip(0.5)}L${x1} ${y1}L${tip(-0.5)}`;
}

const CORNERS: [number, number][] = [
  [14, 12],
  [146, 12],
  [14, 78],
  [146, 78],
];
const INWARD = 0.34;

/** Arrows of the move, as the picture's edge goes over the scene. */
export function arrowsOf({ move, heading, enters }: PlannedShot): Arrow[] {
  const out: Arrow[] = [];
  const add = (d: string, dashed = false) => out.push({ d, dashed });
  const right = heading === "right";
  const up = heading === "up";
  if (move === "pan") add(right ? arrow([38, 80], [122, 80], 10) : arrow([122, 80], [38, 80], -10));
  if (move === "slide") add(right ? arrow([38, 80], [122, 80]) : arrow([122, 80], [38, 80]));
  if (move === "orbit")
    add(right ? arrow([38, 74], [122, 74], -18) : arrow([122, 74], [38, 74], 18));
  if (move === "tilt") add(up ? arrow([144, 72], [144, 20], 10) : arrow([144, 20], [144, 72], -10));
  if (move === "rise") add(up ? arrow([144, 72], [144, 20]) : arrow([144, 20], [144, 72]));
  if (move === "push_in" || move === "pull_out") {
    for (const [x, y] of CORNERS) {
      const inner: [number, number] = [x + INWARD * (80 - x), y + INWARD * (45 - y)];
      add(move === "push_in" ? arrow([x, y], inner) : arrow(inner, [x, y]));
    }
  }
  if (move === "walk" && heading === "in") add(arrow([80, 86], [80, 58]), true);
  if (move === "walk" && heading === "out") add(arrow([80, 58], [80, 86]), true);
  if (move === "walk" && (heading === "left" || heading === "right")) {
    add(right ? arrow([38, 80], [122, 80]) : arrow([122, 80], [38, 80]), true);
  }
  if (enters) add(arrow([2, 60], [34, 60]));
  return out;
}

/** How high each part of the story stands, 0 to 1: it rises to the detail and falls away. */
export const STORY: Record<PlannedShot["part"], number> = {
  where: 0.25,
  who: 0.5,
  what: 0.78,
  detail: 1,
  leaving: 0.12,
};
