import { withUnit, type Quantity } from "./units";

/** Words for quantities that read alike in both systems of units, and for everything else that is
 * shown in more than one place. Units and digits stand in units.ts alone. */

const DASH = "–";

const one = new Intl.NumberFormat("en", { minimumFractionDigits: 1, maximumFractionDigits: 1 });
const upToTwo = new Intl.NumberFormat("en", { maximumFractionDigits: 2 });

const plain = (quantity: Quantity) => (value: number | null | undefined) =>
  withUnit(quantity, value, "metric");

export const gust = plain("gust");
const inSeconds = plain("seconds");
export const share = plain("share");
export const rate = plain("rate");
export const degreesASecond = plain("degrees_s");
export const hertz = plain("hertz");
export const arcMinutes = plain("arc_minutes");
export const millimetres = plain("optics_mm");
/** The longest lens that passes, never told as longer than it is. */
export const longestLens = (mm: number) => millimetres(Math.floor(mm));
export const percent = plain("percent");
export const percentASecond = plain("percent_s");
export const times = plain("times");
export const exactSeconds = (value: number) => `${value.toFixed(2)} s`;
/** From here on minutes are told. */
const LONGEST_IN_SECONDS = 90;

/** "8:19" of a film, "1:02:03" of a long one. */
function clockOf(value: number): string {
  const [hours = 0, minutes, rest] = [value / 3600, (value / 60) % 60, value % 60].map(Math.floor);
  const two = (part = 0) => String(part).padStart(2, "0");
  return hours ? `${hours}:${two(minutes)}:${two(rest)}` : `${minutes}:${two(rest)}`;
}

/** A length, or a moment of a film: "4.0 s", "8:19 min", "1:02:03 h". */
export const seconds = (value: number | null | undefined) =>
  value == null || !(value >= LONGEST_IN_SECONDS) || !Number.isFinite(value)
    ? inSeconds(value)
    : `${clockOf(value)} ${value < 3600 ? "min" : "h"}`;

/** "1.2 to 3.4 s", "1:20 to 8:19 min". */
export const span = (from: number, to: number) =>
  to < LONGEST_IN_SECONDS
    ? `${one.format(from)} to ${seconds(to)}`
    : `${clockOf(from)} to ${seconds(to)}`;
/** How sure a cause is, in words. */
export const certainty = (value: number) =>
  value >= 0.75 ? "clear" : value >= 0.45 ? "likely" : "possible";
export const percentOfWidth = (value: number | null) =>
  value !== null && value < 0.005 ? "under 0.01 %" : withUnit("fine_percent", value, "metric");

/** "1 take", "3 takes"; more: where another letter than an s is put to it. */
export const counted = (count: number, one: string, more = `${one}s`) =>
  `${count} ${count === 1 ? one : more}`;
export const takes = (count: number) => counted(count, "take");

const BYTES = ["B", "kB", "MB", "GB", "TB"];
export function fileSize(bytes: number): string {
  // Rounded first: what is all but a megabyte is told as one.
  const told = Number(bytes.toPrecision(3));
  const step = Math.min(BYTES.length - 1, Math.floor(Math.log10(Math.max(told, 1)) / 3));
  return `${upToTwo.format(told / 1000 ** step)} ${BYTES[step] ?? ""}`;
}

const day = new Intl.DateTimeFormat(undefined, { day: "numeric", month: "short", year: "numeric" });
const clock = new Intl.DateTimeFormat(undefined, { hour: "2-digit", minute: "2-digit" });

const LEAST_READOUT_MS = 4;

/** In which a sensor reads a frame; what lies within the error of finding it is only bounded. */
export const readout = (value_s: number) =>
  1000 * value_s < LEAST_READOUT_MS
    ? `< ${LEAST_READOUT_MS} ms`
    : `${(1000 * value_s).toFixed(0)} ms`;

const DAY_ALONE = /^\d{4}-\d{2}-\d{2}$/;

const dayOfMonth = new Intl.DateTimeFormat(undefined, { day: "numeric", month: "short" });
/** "30 May", in the user's own way. */
export const shortDay = (iso: string) => dayOfMonth.format(new Date(iso));

/** A date in the user's own way, and the time of day apart. */
export function when(iso: string | null): { day: string; time: string } {
  // A day without a time is that day wherever one is; read as a moment it would be one of Greenwich.
  const date = iso === null ? null : new Date(DAY_ALONE.test(iso) ? `${iso}T00:00` : iso);
  if (date === null || Number.isNaN(date.getTime())) return { day: DASH, time: "" };
  return { day: day.format(date), time: clock.format(date) };
}

export const REMEDY_WORDS = {
  keep: "Keep as shot",
  lee: "Keep the lee",
  slow: "Slow it",
  polish: "Polish",
  polish_lee: "Polish the lee",
  slow_polish: "Slow and polish",
  hold: "Hold the subject",
  retake: "Do it again",
} as const;

export const FEEL_WORDS = {
  locked: "Locked",
  smooth: "Smooth",
  alive: "Alive",
  raw: "Raw",
} as const;

export const SCREEN_WORDS = {
  phone: "Phone",
  laptop: "Laptop or television",
  cinema: "Cinema",
} as const;

/** "1.2 over", "0.4 under", or null where there is nothing to compare. What is over by less than is
 * shown is over all the same, as the verdict has it. */
export function againstTarget(value: number | null, target: number) {
  if (value === null) return null;
  const over = Math.round((value - target) * 10) / 10;
  if (over === 0 && value > target) return { over: true, words: "Just over" };
  return over > 0
    ? { over: true, words: `${one.format(over)} over` }
    : { over: false, words: over === 0 ? "Exactly at" : `${one.format(-over)} under` };
}
