import type { Camera, CameraItem, Kit, Lens, LensItem, SetupItem, Support } from "../../api/kit";
import * as format from "../../formats";
import type { Quantity } from "../../units";

type InUnits = (quantity: Quantity, value: number | null | undefined) => string;

export const SUPPORT_WORDS = {
  strap: "Strap",
  monopod: "Monopod",
  pole: "Pole as a rail",
  top_handle: "Top handle",
  cage: "Cage",
  weight: "Weight",
  bag: "Bag",
  cloth: "Cloth",
  other: "Other",
} as const satisfies Record<Support["kind"], string>;

export const ROUTE_WORDS = {
  neck: "Round the neck",
  under_arm: "Under one arm",
  chest: "Short, to the chest",
} as const;

export function cameraInWords(camera: Camera, inUnits: InUnits): string {
  const rates = camera.modes.flatMap((mode) => mode.rates_hz);
  return `${inUnits("optics_mm", camera.sensor_long_mm)} sensor · up to ${format.rate(Math.max(...rates))} · ${inUnits("mass_g", camera.mass_g)}`;
}

export function lensInWords(lens: Lens, inUnits: InUnits): string {
  const focal =
    lens.focal_min_mm === lens.focal_max_mm
      ? format.millimetres(lens.focal_min_mm)
      : `${lens.focal_min_mm}–${format.millimetres(lens.focal_max_mm)}`;
  const mass = lens.mass_g > 0 ? inUnits("mass_g", lens.mass_g) : "built in";
  return `${focal} · ${mass}${lens.stabiliser ? " · stabilised" : ""}`;
}

export function supportInWords(support: Support, inUnits: InUnits): string {
  const strap =
    support.kind === "strap" && support.length_mm !== null && support.route !== null
      ? ` · ${inUnits("body_mm", support.length_mm)}, ${ROUTE_WORDS[support.route].toLowerCase()}`
      : "";
  return `${SUPPORT_WORDS[support.kind]}${strap} · ${inUnits("mass_g", support.mass_g)}`;
}

export function cameraOf(kit: Kit, id: number): CameraItem | undefined {
  return kit.cameras.find((item) => item.id === id);
}

export function lensOf(kit: Kit, id: number): LensItem | undefined {
  return kit.lenses.find((item) => item.id === id);
}

export function setupInWords(setup: SetupItem, kit: Kit): string {
  const camera = cameraOf(kit, setup.camera_id);
  const lens = lensOf(kit, setup.lens_id);
  const mode = camera?.spec.modes[setup.optics.mode];
  return [camera?.name, lens?.name, mode && `${mode.name} at ${format.rate(setup.optics.rate_hz)}`]
    .filter(Boolean)
    .join(" · ");
}
