import type { Bench, Kit, Place, SetupAsk } from "../../../api/kit";
import type { Balance, RigPart } from "./types";

export type RigAsk = Bench["rig"];

/** Carried supports of a set-up, in the order of the parts after camera and lens. */
export function carriedOf(setup: SetupAsk, kit: Kit) {
  return setup.support_ids
    .map((id) => kit.supports.find((one) => one.id === id))
    .filter((one) => one !== undefined)
    .filter((one) => one.spec.carried);
}

/** Where a support sits on this rig. */
export function placeOf(ask: RigAsk, id: number, usual: Place): Place {
  return ask.placed.find((one) => one.support_id === id)?.place ?? usual;
}

/** The rig with one support moved. */
export function placedAt(ask: RigAsk, id: number, place: Place): RigAsk {
  const others = ask.placed.filter((one) => one.support_id !== id);
  return { ...ask, placed: [...others, { support_id: id, place }] };
}

export type Bounds = { left: number; right: number; low: number; high: number };

/** What the side view must show, in millimetres: all parts, the handle and the weight's place. */
export function boundsOf(parts: readonly RigPart[], ask: RigAsk, balance: Balance | null): Bounds {
  const corners = parts.flatMap(({ place, size }) =>
    [-0.5, 0.5].flatMap((z) =>
      [-0.5, 0.5].map((y) => ({
        z: place.z_mm + z * size.depth_mm,
        y: place.y_mm + y * size.height_mm,
      })),
    ),
  );
  const points = [...corners];
  points.push({ z: ask.weight_at.z_mm - 25, y: ask.weight_at.y_mm - 25 });
  if (ask.handle) points.push({ z: ask.handle.z_mm, y: ask.handle.y_mm + 30 });
  if (balance) points.push({ z: balance.centre.z_mm, y: balance.centre.y_mm });
  if (balance?.hang && ask.handle) {
    const hung = turned(ask.handle, (balance.hang.forward_deg * Math.PI) / 180);
    points.push(...corners.map(hung));
  }
  const z = points.map((point) => point.z);
  const y = points.map((point) => point.y);
  return { left: Math.min(...z), right: Math.max(...z), low: Math.min(...y), high: Math.max(...y) };
}

/** A point as it hangs: turned about the handle, nose down for a positive angle. */
function turned(handle: Place, angle: number) {
  const [sin, cos] = [Math.sin(angle), Math.cos(angle)];
  return ({ z, y }: { z: number; y: number }) => {
    const [dz, dy] = [z - handle.z_mm, y - handle.y_mm];
    return { z: handle.z_mm + dz * cos + dy * sin, y: handle.y_mm + dy * cos - dz * sin };
  };
}

const STEP_MM = 5;

/** A place dragged to a new point of the side view, on a grid of five millimetres. */
export function dragged(place: Place, z_mm: number, y_mm: number): Place {
  const snap = (value: number) => Math.round(value / STEP_MM) * STEP_MM;
  return { ...place, z_mm: snap(z_mm), y_mm: snap(y_mm) };
}
