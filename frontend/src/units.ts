/** Quantities in the unit they are kept in, and how each is shown in either system. */

export type UnitSystem = "metric" | "imperial";

/** digits: behind the point; trim: without needless zeros. fine: digits of values under one. */
type Shown = { unit: string; factor: number; digits: number; trim?: boolean; fine?: number };
const same = (
  unit: string,
  digits: number,
  more: Pick<Shown, "trim" | "fine"> = {},
): Record<UnitSystem, Shown> => ({
  metric: { unit, factor: 1, digits, ...more },
  imperial: { unit, factor: 1, digits, ...more },
});
/** Units that stand close to their number. */
const CLOSE = new Set(["", "°", "′", "/s"]);

const MM_PER_INCH = 25.4;
const M_PER_FOOT = 0.3048;
const G_PER_OUNCE = 28.349523125;
const G_PER_POUND = 453.59237;
const N_PER_POUND_FORCE = 4.4482216152605;
const NM_PER_FOOT_POUND = 1.3558179483314;

/** shown = kept × factor. Optics stay in millimetres everywhere, as field terms do. */
export const QUANTITIES = {
  optics_mm: same("mm", 1, { trim: true }),
  size_mm: {
    metric: { unit: "mm", factor: 1, digits: 0 },
    imperial: { unit: "in", factor: 1 / MM_PER_INCH, digits: 2 },
  },
  body_mm: {
    metric: { unit: "cm", factor: 0.1, digits: 1 },
    imperial: { unit: "in", factor: 1 / MM_PER_INCH, digits: 1 },
  },
  distance_m: {
    metric: { unit: "m", factor: 1, digits: 2, trim: true },
    imperial: { unit: "ft", factor: 1 / M_PER_FOOT, digits: 1, trim: true },
  },
  short_m: {
    metric: { unit: "cm", factor: 100, digits: 1 },
    imperial: { unit: "in", factor: 1 / (MM_PER_INCH / 1000), digits: 1 },
  },
  speed_m_s: {
    metric: { unit: "m/s", factor: 1, digits: 2 },
    imperial: { unit: "ft/s", factor: 1 / M_PER_FOOT, digits: 2 },
  },
  mass_g: {
    metric: { unit: "g", factor: 1, digits: 0 },
    imperial: { unit: "oz", factor: 1 / G_PER_OUNCE, digits: 1 },
  },
  heavy_g: {
    metric: { unit: "kg", factor: 0.001, digits: 2 },
    imperial: { unit: "lb", factor: 1 / G_PER_POUND, digits: 2 },
  },
  scale_kg: {
    metric: { unit: "kg", factor: 1, digits: 1 },
    imperial: { unit: "lb", factor: 1000 / G_PER_POUND, digits: 1 },
  },
  pull_n: {
    metric: { unit: "N", factor: 1, digits: 0 },
    imperial: { unit: "lbf", factor: 1 / N_PER_POUND_FORCE, digits: 1 },
  },
  torque_nm: {
    metric: { unit: "N m", factor: 1, digits: 1 },
    imperial: { unit: "lbf ft", factor: 1 / NM_PER_FOOT_POUND, digits: 1 },
  },
  degrees: same("°", 1),
  degrees_s: same("°/s", 1, { fine: 2 }),
  arc_minutes: same("′", 1, { fine: 2 }),
  percent: same("%", 1),
  fine_percent: same("%", 2, { trim: true }),
  percent_s: same("%/s", 1),
  times: same("×", 1),
  scale: same("×", 2),
  share: {
    metric: { unit: "%", factor: 100, digits: 0 },
    imperial: { unit: "%", factor: 100, digits: 0 },
  },
  seconds: same("s", 1),
  milliseconds: same("ms", 1),
  rate: same("/s", 2, { trim: true }),
  hertz: same("Hz", 1, { fine: 2 }),
  pixels: same("px", 0),
  count: same("", 0),
  gust: same("", 1),
  mbit: same("Mbit/s", 0),
} as const satisfies Record<string, Record<UnitSystem, Shown>>;

export type Quantity = keyof typeof QUANTITIES;

export function shownIn(quantity: Quantity, system: UnitSystem): Shown {
  return QUANTITIES[quantity][system];
}

/** A kept value as a number in the shown unit, without needless zeros. */
export function toShown(quantity: Quantity, value: number, system: UnitSystem): string {
  const { factor, digits } = shownIn(quantity, system);
  // What is kept in the shown unit may be finer than it is usually said.
  return String(Number((value * factor).toFixed(factor === 1 ? digits + 2 : digits)));
}

/** What was typed in the shown unit as a kept value; null where it is no number. */
export function fromShown(quantity: Quantity, typed: string, system: UnitSystem): number | null {
  const plain = typed.trim().replace(",", ".").replace("−", "-");
  if (!/^-?(\d+\.?\d*|\.\d+)$/.test(plain)) return null;
  return Number(plain) / shownIn(quantity, system).factor;
}

/** A kept value with its unit, such as "1.22 m" or "4.0 ft"; a dash for nothing. */
export function withUnit(
  quantity: Quantity,
  value: number | null | undefined,
  system: UnitSystem,
): string {
  if (value == null || !Number.isFinite(value)) return "–";
  const { factor, digits, unit, trim, fine } = shownIn(quantity, system);
  const small = fine !== undefined && Math.abs(value * factor) < 1;
  const fixed = (value * factor).toFixed(small ? fine : digits);
  const rounded = trim || small ? String(Number(fixed)) : fixed;
  const number = /^-0(\.0*)?$/.test(rounded) ? rounded.slice(1) : rounded;
  const plain = number.replace("-", "−");
  return CLOSE.has(unit) ? `${plain}${unit}` : `${plain} ${unit}`;
}

const LIMITS = /between (-?[\d.e+-]+) and (-?[\d.e+-]+) (?:mm|m|g|kg)\b/;

/** What the server says of a quantity that is out of its range, in the unit that its field shows:
 * the server says it in the one that is kept. */
export function limitsInShown(words: string, quantity: Quantity, system: UnitSystem): string {
  const { factor, unit } = shownIn(quantity, system);
  const found = LIMITS.exec(words);
  if (!found || factor === 1) return words;
  const [low, high] = [found[1], found[2]].map((end) => Number(end) * factor) as [number, number];
  const within = `${rounded(low, Math.ceil)} and ${rounded(high, Math.floor)}`;
  return words.replace(found[0], `between ${within} ${unit}`);
}

/** To three digits, to one side, so that what is said is still allowed. */
function rounded(value: number, side: (value: number) => number): number {
  if (value === 0) return 0;
  const step = 10 ** (Math.floor(Math.log10(Math.abs(value))) - 2);
  return Number((side(value / step) * step).toPrecision(3));
}
