import type { TakeDetail } from "../../../api/client";
import * as format from "../../../formats";

export type Offer = { words: string; focal_eq_mm?: number };

const SAME_MM = 0.5;
const SAME_RATE = 0.05;

/** What the file says of itself that the take's lens and set-up do not say. */
export function fileOffers(detail: Pick<TakeDetail, "clip" | "setup" | "focal_eq_mm">): Offer[] {
  const { clip, setup } = detail;
  if (!clip) return [];
  const offers: Offer[] = [];
  const focal = fileFocal(clip, setup);
  if (focal && Math.abs(focal.mm - detail.focal_eq_mm) > SAME_MM) {
    offers.push({ words: focal.words, focal_eq_mm: focal.mm });
  }
  if (setup && !setup.typical && !clip.from_log) {
    const long = Math.max(clip.width, clip.height);
    const sameSize = long === Math.max(setup.width_px, setup.height_px);
    const sameRate = Math.abs(clip.fps - setup.rate_hz) <= SAME_RATE * setup.rate_hz;
    if (!sameSize || !sameRate) {
      offers.push({
        words: `The file is ${clip.width}×${clip.height} at ${format.rate(clip.fps)}; this set-up says ${setup.width_px}×${setup.height_px} at ${format.rate(setup.rate_hz)}.`,
      });
    }
  }
  return offers;
}

function fileFocal(clip: NonNullable<TakeDetail["clip"]>, setup: TakeDetail["setup"]) {
  if (clip.file_focal_eq_mm !== null) {
    const mm = clip.file_focal_eq_mm;
    return { mm, words: `The file says ${format.millimetres(mm)} equivalent:` };
  }
  if (clip.file_focal_mm === null || !setup) return null;
  const mm = Number(((clip.file_focal_mm * setup.focal_eq_mm) / setup.focal_mm).toFixed(1));
  const own = format.millimetres(clip.file_focal_mm);
  return { mm, words: `The file says ${own}, here ${format.millimetres(mm)} equivalent:` };
}
