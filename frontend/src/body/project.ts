import type { FigureFrame } from "../api/figures";

export type Place = readonly [number, number, number];
export type View = "side" | "front" | "above";
export type Point = readonly [number, number];

/** Where a place of the body stands in a drawing, m, right and down positive: seen from the shooter's
 * right, from ahead, or from above with ahead at the top. */
export function seen([x, y, z]: Place, view: View): Point {
  if (view === "side") return [z, -y];
  if (view === "front") return [-x, -y];
  return [x, -z];
}

/** How near a place is to who looks. */
export function nearness([x, y, z]: Place, view: View): number {
  return view === "side" ? x : view === "front" ? z : y;
}

export type Joints = Record<string, Place>;

export const jointsOf = (names: readonly string[], frame: FigureFrame): Joints =>
  Object.fromEntries(names.map((name, k) => [name, frame.joints[k] ?? [0, 0, 0]]));

const mix = (a: Place, b: Place, share: number): Place => [
  a[0] + (b[0] - a[0]) * share,
  a[1] + (b[1] - a[1]) * share,
  a[2] + (b[2] - a[2]) * share,
];
const mixAll = (a: Place[], b: Place[], share: number) =>
  a.map((one, k) => mix(one, b[k] ?? one, share));

/** The body between two frames. */
export function between(a: FigureFrame, b: FigureFrame, share: number): FigureFrame {
  const number = (one: number, other: number) => one + (other - one) * share;
  return {
    joints: mixAll(a.joints, b.joints, share) as FigureFrame["joints"],
    camera: mix(a.camera, b.camera, share) as FigureFrame["camera"],
    yaw_deg: number(a.yaw_deg, b.yaw_deg),
    tilt_deg: number(a.tilt_deg, b.tilt_deg),
    roll_deg: number(a.roll_deg, b.roll_deg),
    dots: mixAll(a.dots, b.dots, share) as FigureFrame["dots"],
    strap: mixAll(a.strap, b.strap, share) as FigureFrame["strap"],
    props: a.props.map((prop, k) => ({
      kind: prop.kind,
      points: mixAll(prop.points, b.props[k]?.points ?? prop.points, share) as typeof prop.points,
    })),
  };
}

/** The body at a share of its move, 0 to 1; a cycle goes on to its first frame. */
export function frameAt(frames: readonly FigureFrame[], share: number, cycle: boolean) {
  const first = frames[0];
  if (first === undefined) return undefined;
  const at = share * (cycle ? frames.length : frames.length - 1);
  const k = Math.min(Math.floor(at), frames.length - 1);
  const next = frames[cycle ? (k + 1) % frames.length : Math.min(k + 1, frames.length - 1)];
  return between(frames[k] ?? first, next ?? first, at - k);
}

const turn = (a: Point, b: Point, c: Point) =>
  (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);

/** The convex hull of points (Andrew's monotone chain). */
export function hull(points: readonly Point[]): Point[] {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const chain = (ordered: Point[]) => {
    const out: Point[] = [];
    for (const point of ordered) {
      while (out.length > 1 && turn(out.at(-2) ?? point, out.at(-1) ?? point, point) <= 0)
        out.pop();
      out.push(point);
    }
    return out.slice(0, -1);
  };
  return [...chain(sorted), ...chain(sorted.reverse())];
}

const AROUND = 16;

export const circle = ([x, y]: Point, r: number): Point[] =>
  Array.from({ length: AROUND }, (_, k) => [
    x + r * Math.cos((2 * Math.PI * k) / AROUND),
    y + r * Math.sin((2 * Math.PI * k) / AROUND),
  ]);

export const closed = (points: readonly Point[]) =>
  points.length ? `M${points.map(([x, y]) => `${x.toFixed(3)} ${y.toFixed(3)}`).join("L")}Z` : "";

/** A tapered limb: everything within two circles and between them. */
export const limb = (a: Point, b: Point, ra: number, rb: number) =>
  closed(hull([...circle(a, ra), ...circle(b, rb)]));

/** The eight corners of a box that is turned and tilted. half: its half sides, across, up, ahead. */
export function corners(
  at: Place,
  half: Place,
  ahead: number,
  yaw_deg: number,
  tilt_deg: number,
  roll_deg: number,
): Place[] {
  const [yaw, tilt, roll] = [yaw_deg, tilt_deg, roll_deg].map((deg) => (deg * Math.PI) / 180) as [
    number,
    number,
    number,
  ];
  const out: Place[] = [];
  for (const sx of [-1, 1])
    for (const sy of [-1, 1])
      for (const sz of [-1, 1]) {
        const [x, y, z] = [sx * half[0], sy * half[1], sz * half[2] + ahead];
        const [x1, y1] = [x * Math.cos(roll) + y * Math.sin(roll), y * Math.cos(roll) - x * Math.sin(roll)]; // prettier-ignore
        const [y2, z2] = [y1 * Math.cos(tilt) + z * Math.sin(tilt), z * Math.cos(tilt) - y1 * Math.sin(tilt)]; // prettier-ignore
        out.push([
          at[0] + x1 * Math.cos(yaw) + z2 * Math.sin(yaw),
          at[1] + y2,
          at[2] + z2 * Math.cos(yaw) - x1 * Math.sin(yaw),
        ]);
      }
  return out;
}

export type Bounds = { left: number; top: number; width: number; height: number };

const ROOM = 0.14;

/** What a drawing of these frames needs in a view, with a little room; from the ground up. */
export function boundsOf(frames: readonly FigureFrame[], view: View, least: number): Bounds {
  const points = frames.flatMap((frame) => [
    ...frame.joints,
    frame.camera,
    ...frame.props.filter((prop) => prop.kind !== "wall").flatMap((prop) => prop.points),
  ]);
  const at = points.map((point) => seen(point as Place, view));
  const [xs, ys] = [at.map(([x]) => x), at.map(([, y]) => y)];
  const [left, right] = [Math.min(...xs, 0) - 2 * ROOM, Math.max(...xs, 0) + 2 * ROOM];
  const top = Math.min(...ys) - 2 * ROOM;
  const foot = view === "above" ? Math.max(...ys) + 2 * ROOM : ROOM / 2;
  const width = Math.max(least, right - left);
  const height = Math.max(least, foot - top);
  return { left: (left + right - width) / 2, top: foot - height, width, height };
}
