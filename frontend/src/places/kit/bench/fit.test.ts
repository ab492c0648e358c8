import { describe, expect, it } from "vitest";
import type { Camera, Lens, Optics } from "../../../api/kit";
import { fitOptics } from "./fit";

const camera = {
  modes: [{ rates_hz: [24, 25] }, { rates_hz: [50, 60] }],
  stabilisers: [{ kind: "body", crop: 0, up_to_hz: 60 }],
  shutters: [50, 100],
} as unknown as Camera;
const lens = { focal_min_mm: 24, focal_max_mm: 70, stabiliser: false } as Lens;
const optics: Optics = {
  mode: 1, rate_hz: 60, focal_mm: 35, lens_stabiliser: false, body_stabiliser: true, stretched: false,
  digital_stabiliser: false, shutter: 100,
}; // prettier-ignore

describe("fitting settings to camera and lens", () => {
  it("keeps what is possible", () => {
    expect(fitOptics(optics, camera, lens)).toEqual(optics);
  });
  it("gives way where it must", () => {
    const asked = {
      ...optics, mode: 7, rate_hz: 120, focal_mm: 200, lens_stabiliser: true,
      digital_stabiliser: true, shutter: 60,
    }; // prettier-ignore
    expect(fitOptics(asked, camera, lens)).toEqual({
      mode: 0, rate_hz: 25, focal_mm: 70, lens_stabiliser: false, body_stabiliser: true, stretched: false,
      digital_stabiliser: false, shutter: null,
    }); // prettier-ignore
  });
});
