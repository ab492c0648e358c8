import { describe, expect, it } from "vitest";
import type { TakeDetail } from "../../../api/client";
import { fileOffers } from "./fileOffers";

const clip = {
  width: 1080, height: 1920, fps: 60, file_focal_mm: null, file_focal_eq_mm: null,
} as NonNullable<TakeDetail["clip"]>; // prettier-ignore
const setup = {
  id: 1, name: "Mine", typical: false, focal_mm: 30, focal_eq_mm: 45, width_px: 1920,
  height_px: 1080, rate_hz: 60,
}; // prettier-ignore

describe("what the file says", () => {
  it("is offered where it differs from the take's lens", () => {
    const told = { ...clip, file_focal_eq_mm: 28 };
    expect(fileOffers({ clip: told, setup, focal_eq_mm: 45 })[0]?.focal_eq_mm).toBe(28);
    expect(fileOffers({ clip: told, setup, focal_eq_mm: 28.2 })).toEqual([]);
  });
  it("goes through the set-up's camera where only the true focal length is known", () => {
    const told = { ...clip, file_focal_mm: 20 };
    expect(fileOffers({ clip: told, setup, focal_eq_mm: 45 })[0]?.focal_eq_mm).toBe(30);
    expect(fileOffers({ clip: told, setup: null, focal_eq_mm: 45 })).toEqual([]);
  });
  it("names a size or rate that the set-up does not record, upright or not", () => {
    expect(fileOffers({ clip, setup, focal_eq_mm: 45 })).toEqual([]);
    const slow = fileOffers({ clip: { ...clip, fps: 30 }, setup, focal_eq_mm: 45 });
    expect(slow[0]?.words).toContain("1080×1920 at 30/s");
    const typical = { ...setup, typical: true };
    expect(fileOffers({ clip: { ...clip, fps: 30 }, setup: typical, focal_eq_mm: 45 })).toEqual([]);
  });
});
