import type { Camera, Lens, Optics } from "../../../api/kit";

const SAME_RATE = 0.02;

/** Settings made possible for a camera and lens, keeping what still is. */
export function fitOptics(optics: Optics, camera: Camera, lens: Lens): Optics {
  const mode = optics.mode < camera.modes.length ? optics.mode : 0;
  const rates = camera.modes[mode]?.rates_hz ?? [];
  const rate = rates.some((one) => Math.abs(one - optics.rate_hz) <= SAME_RATE)
    ? optics.rate_hz
    : nearest(rates, optics.rate_hz);
  const has = (kind: "body" | "digital") => camera.stabilisers.some((one) => one.kind === kind);
  return {
    mode,
    rate_hz: rate,
    focal_mm: Math.min(lens.focal_max_mm, Math.max(lens.focal_min_mm, optics.focal_mm)),
    lens_stabiliser: optics.lens_stabiliser && lens.stabiliser,
    body_stabiliser: optics.body_stabiliser && has("body"),
    digital_stabiliser: optics.digital_stabiliser && has("digital"),
    shutter:
      optics.shutter !== null && camera.shutters.includes(optics.shutter) ? optics.shutter : null,
    stretched: optics.stretched ?? false,
  };
}

/** Whether a lens fits a camera: both name the same mount. */
export function fits(camera: Camera, lens: Lens): boolean {
  return camera.mount.trim().toLowerCase() === lens.mount.trim().toLowerCase();
}

function nearest(values: readonly number[], wanted: number): number {
  return values.reduce(
    (best, one) => (Math.abs(one - wanted) < Math.abs(best - wanted) ? one : best),
    values[0] ?? wanted,
  );
}
