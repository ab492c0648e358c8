/** Taps further apart than this begin anew, ms. */
const PAUSE_MS = 2500;
const MOST_TAPS = 12;

/** The taps that count: those since the last pause, and no more than the newest few. */
export const counted = (taps_ms: readonly number[], now_ms: number): number[] => {
  const last = taps_ms[taps_ms.length - 1];
  const going = last !== undefined && now_ms - last < PAUSE_MS ? taps_ms : [];
  return [...going, now_ms].slice(-MOST_TAPS);
};

/** Beats a minute that taps say, null for fewer than four; by the first and the last of them. */
export function beatsOf(taps_ms: readonly number[]): number | null {
  const [first, last] = [taps_ms[0], taps_ms[taps_ms.length - 1]];
  if (taps_ms.length < 4 || first === undefined || last === undefined) return null;
  const beats = (60_000 * (taps_ms.length - 1)) / (last - first);
  return beats < 20 || beats > 300 ? null : Math.round(2 * beats) / 2;
}

/** Frames at which beats fall, from 0 to the end. */
export function beatFrames(beats_per_min: number, rate_hz: number, frames: number): number[] {
  const each = (60 / beats_per_min) * rate_hz;
  return Array.from({ length: Math.floor(frames / each) + 1 }, (_, beat) =>
    Math.floor(beat * each + 0.5),
  );
}
