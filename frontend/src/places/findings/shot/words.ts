import type { ShotAnswer, ShotOption } from "../../../api/shot";
import * as format from "../../../formats";
import { chance } from "../trials/words";

const NEARLY_ALL = 0.995;
const inHundred = (share: number) => `${Math.round(100 * share)} %`;

/** What to do at the place, and at the desk, in one line. */
export function doingWords(one: ShotOption): string {
  const rate = `${Number(one.fps.toFixed(2))}/s`;
  const hold = `hold ${format.seconds(one.seconds)}`;
  const polish =
    one.crop_pct === null
      ? ""
      : `a ${strength(one.crop_pct)} polish, crop ${one.crop_pct.toFixed(1)} %`;
  switch (one.remedy) {
    case "keep":
      return `As shot: film at ${rate}, ${hold}.`;
    case "slow":
      return `Film at ${rate}, ${hold}, play it at ${inHundred(one.rate)}.`;
    case "polish":
      return `Film at ${rate}, ${hold}, then ${polish}.`;
    case "slow_polish":
      return `Film at ${rate}, ${hold}, play it at ${inHundred(one.rate)}, then ${polish}.`;
    case "nearer":
      return `Go nearer: from ${inHundred(one.distance)} of the distance at ${format.millimetres(one.focal_eq_mm)}, film at ${rate}, ${hold}.`;
  }
}

const strength = (crop: number) => (crop <= 4 ? "light" : crop <= 10 ? "medium" : "strong");

const NEED_WORDS: Record<string, string> = {
  strap: "a strap",
  weight: "some weight",
  top_handle: "a top handle",
  monopod: "a monopod",
  pole: "a pole",
  cloth: "a cloth",
  tripod: "a tripod",
  blanket: "a blanket",
  helper: "a helper",
  vehicle: "a vehicle",
  long_lens: "a long lens",
  zoom: "a zoom",
  lean: "something to lean on",
  even_ground: "even ground",
  smooth_floor: "a smooth floor",
};

export const needWords = (needs: readonly string[]) =>
  needs.length === 0 ? "" : `Takes ${needs.map((need) => NEED_WORDS[need] ?? need).join(", ")}.`;

/** How many of the takes that are smooth enough go on so long, and where none on record is so long;
    nothing where all do. */
export function lastingWords(one: ShotOption): string {
  if (one.lasts === null || one.lasts > NEARLY_ALL) return "";
  const seconds = format.seconds(one.seconds);
  const told = `Of those smooth enough, ${inHundred(one.lasts)} last ${seconds}`;
  return one.longest_s !== null && one.longest_s < one.seconds
    ? `${told}: reckoned, your longest is ${format.seconds(one.longest_s)}.`
    : `${told}.`;
}

/** What it rests on, and what to mind. */
export function groundWords(one: ShotOption, delivered_px: number): string {
  const of =
    one.takes === 0
      ? "Typical figures: you have no take of it."
      : `From ${format.takes(one.takes)} of yours.`;
  const lens = one.lens === null ? " No lens of your kit reaches it." : ` Lens: ${one.lens}.`;
  const blur = one.blurs ? " Its frames smear, and a polish leaves that." : "";
  const small =
    one.left_px < delivered_px
      ? ` Leaves ${one.left_px} px of the ${delivered_px} delivered: softer.`
      : "";
  const told = [needWords(one.needs), of, lastingWords(one)].filter(Boolean).join(" ");
  return told + lens + small + blur;
}

/** What all options come to, in a sentence. */
export function outlookWords(answer: ShotAnswer): string {
  const told = outlookOf(answer);
  return answer.recorded > 0 || answer.options.length === 0 ? told : `By typical figures: ${told}`;
}

function outlookOf(answer: ShotAnswer): string {
  const works = answer.options.filter((one) => one.works);
  const [best] = answer.options;
  if (best === undefined) return "No technique films such a move yet.";
  if (answer.three_legs) {
    return `This shot wants three legs: the likeliest way, ${best.name.toLowerCase()}, passes ${chance(best.chance)} of the time.`;
  }
  if (works.length === 0) {
    return `No way is sure: the likeliest, ${best.name.toLowerCase()}, passes ${chance(best.chance)} of the time. Film it several times, or take three legs.`;
  }
  return `${works.length === 1 ? "One way works" : `${works.length} ways work`} four times in five or better; the cheapest first.`;
}

/** The focal length at which a frame shows so many metres across at a distance. */
export const framingLens = (across_m: number, distance_m: number) =>
  Math.min(320, Math.max(10, (36 * distance_m) / across_m));
