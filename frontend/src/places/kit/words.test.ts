import { expect, it } from "vitest";
import type { Camera, Kit, Lens, SetupItem, Support } from "../../api/kit";
import { withUnit, type Quantity } from "../../units";
import {
  cameraInWords,
  cameraOf,
  lensInWords,
  lensOf,
  setupInWords,
  supportInWords,
} from "./words";

const metric = (quantity: Quantity, value: number | null | undefined) =>
  withUnit(quantity, value, "metric");
const imperial = (quantity: Quantity, value: number | null | undefined) =>
  withUnit(quantity, value, "imperial");

const camera = {
  sensor_long_mm: 35.6, mass_g: 658,
  modes: [{ name: "Full width", rates_hz: [24, 25] }, { name: "Fast", rates_hz: [100, 119.88] }],
} as Camera; // prettier-ignore
const lens = { focal_min_mm: 35, focal_max_mm: 35, mass_g: 280, stabiliser: false } as Lens;
const strap = { kind: "strap", mass_g: 60, length_mm: 1100, route: "neck" } as Support;

it("tells a camera by its sensor, its fastest rate and its weight", () => {
  expect(cameraInWords(camera, metric)).toBe("35.6 mm sensor · up to 119.88/s · 658 g");
  expect(cameraInWords(camera, imperial)).toBe("35.6 mm sensor · up to 119.88/s · 23.2 oz");
});

it("tells a lens by one focal length or two, and one that is built in", () => {
  expect(lensInWords(lens, metric)).toBe("35 mm · 280 g");
  const zoom = { ...lens, focal_min_mm: 24, focal_max_mm: 105, stabiliser: true };
  expect(lensInWords(zoom, metric)).toBe("24–105 mm · 280 g · stabilised");
  expect(lensInWords({ ...lens, mass_g: 0 }, metric)).toBe("35 mm · built in");
});

it("tells a strap's length and way, and of other things their weight alone", () => {
  expect(supportInWords(strap, metric)).toBe("Strap · 110.0 cm, round the neck · 60 g");
  expect(supportInWords({ ...strap, length_mm: null }, metric)).toBe("Strap · 60 g");
  expect(supportInWords({ ...strap, kind: "monopod" }, metric)).toBe("Monopod · 60 g");
});

it("finds what a set-up is made of, and says what is still there of it", () => {
  const kit = {
    cameras: [{ id: 1, name: "Slate", spec: camera }],
    lenses: [{ id: 2, name: "Thirty-five", spec: lens }],
  } as unknown as Kit;
  const setup = { camera_id: 1, lens_id: 2, optics: { mode: 1, rate_hz: 100 } } as SetupItem;
  expect(setupInWords(setup, kit)).toBe("Slate · Thirty-five · Fast at 100/s");
  expect(setupInWords({ ...setup, lens_id: 9 }, kit)).toBe("Slate · Fast at 100/s");
  expect(setupInWords({ ...setup, camera_id: 9 }, kit)).toBe("Thirty-five");
  expect([cameraOf(kit, 1)?.name, cameraOf(kit, 2)]).toEqual(["Slate", undefined]);
  expect([lensOf(kit, 2)?.name, lensOf(kit, 1)]).toEqual(["Thirty-five", undefined]);
});
