import type { SpectrumColumns } from "../api/client";

/** Slowest frequency that is drawn. */
export const SLOWEST_HZ = 0.1;
/** Steps of the drawing a doubling of frequency. */
const STEPS_PER_OCTAVE = 24;

export type SpectrumPoint = { hz: number; speed: number };

/**
 * Weighted speed within even steps of log frequency, all parts together: over a log axis, equal
 * areas then hold equal shares of the shake.
 */
export function spectrumShape(columns: SpectrumColumns): SpectrumPoint[] {
  const last = columns.hz.at(-1) ?? 0;
  if (last <= SLOWEST_HZ) return [];
  const count = Math.ceil(STEPS_PER_OCTAVE * Math.log2(last / SLOWEST_HZ));
  const edges = Array.from(
    { length: count + 1 },
    (_, k) => SLOWEST_HZ * 2 ** (k / STEPS_PER_OCTAVE),
  );
  const power = columns.hz.map((_, i) =>
    columns.speed.reduce((sum, part) => sum + (part[i] ?? 0) ** 2, 0),
  );
  const step = (columns.hz[1] ?? 1) - (columns.hz[0] ?? 0);
  return edges.slice(0, -1).map((low, k) => {
    const high = edges[k + 1] ?? low;
    const middle = Math.sqrt(low * high);
    return {
      hz: middle,
      speed: Math.sqrt((densityAt(columns.hz, power, middle) / step) * (high - low)),
    };
  });
}

/** Power at a frequency, between the two nearest. */
function densityAt(hz: readonly number[], power: readonly number[], at: number): number {
  const step = (hz[1] ?? 1) - (hz[0] ?? 0);
  const place = Math.max(0, (at - (hz[0] ?? 0)) / step);
  const low = Math.min(hz.length - 1, Math.floor(place));
  const high = Math.min(hz.length - 1, low + 1);
  const share = place - low;
  return (power[low] ?? 0) * (1 - share) + (power[high] ?? 0) * share;
}
