/** One formatter per quantity: its label, unit and precision, for charts, tables and exports. */

const DASH = "–";

const one = new Intl.NumberFormat("en", { minimumFractionDigits: 1, maximumFractionDigits: 1 });
const upToTwo = new Intl.NumberFormat("en", { maximumFractionDigits: 2 });
const whole = new Intl.NumberFormat("en", { maximumFractionDigits: 0 });

export const gust = (value: number | null | undefined) =>
  value == null ? DASH : one.format(value);
export const seconds = (value: number | null | undefined) =>
  value == null ? DASH : `${one.format(value)} s`;
export const exactSeconds = (value: number) => `${value.toFixed(2)} s`;
export const share = (value: number | null | undefined) =>
  value == null ? DASH : `${whole.format(100 * value)} %`;
/** How sure a cause is, in words. */
export const certainty = (value: number) =>
  value >= 0.75 ? "clear" : value >= 0.45 ? "likely" : "possible";
export const rate = (value: number) => `${upToTwo.format(value)}/s`;
export const degreesASecond = (value: number | null) =>
  value == null ? DASH : `${value < 1 ? upToTwo.format(value) : one.format(value)} °/s`;
export const hertz = (value: number) =>
  `${value < 1 ? upToTwo.format(value) : one.format(value)} Hz`;
export const arcMinutes = (value: number | null) =>
  value == null ? DASH : `${value < 1 ? upToTwo.format(value) : one.format(value)}′`;
export const percentOfWidth = (value: number | null) =>
  value == null ? DASH : value < 0.005 ? "under 0.01 %" : `${upToTwo.format(value)} %`;
export const millimetres = (value: number) => `${upToTwo.format(value)} mm`;

/** "3 takes" or "1 take". */
export const takes = (count: number) => (count === 1 ? "1 take" : `${count} takes`);

const UNITS = ["B", "kB", "MB", "GB", "TB"];
export function fileSize(bytes: number): string {
  const step = Math.min(UNITS.length - 1, Math.floor(Math.log10(Math.max(bytes, 1)) / 3));
  return `${upToTwo.format(Number((bytes / 1000 ** step).toPrecision(3)))} ${UNITS[step] ?? ""}`;
}

const day = new Intl.DateTimeFormat(undefined, { day: "numeric", month: "short", year: "numeric" });
const clock = new Intl.DateTimeFormat(undefined, { hour: "2-digit", minute: "2-digit" });

/** A date in the user's own way, and the time of day apart. */
export function when(iso: string | null): { day: string; time: string } {
  const date = iso === null ? null : new Date(iso);
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

/** "1.2 over" or "0.4 under", or null where there is nothing to compare. */
export function againstTarget(value: number | null, target: number) {
  if (value === null) return null;
  const over = Math.round((value - target) * 10) / 10;
  return over > 0
    ? { over: true, words: `${one.format(over)} over` }
    : { over: false, words: over === 0 ? "Exactly at" : `${one.format(-over)} under` };
}
