/** How hard a strap is pulled: one scale, live, in notes, in limits and on the bench. */
export const PULLS = [1, 2, 3, 4, 5] as const;
export const PULL_WORDS: Record<(typeof PULLS)[number], string> = {
  1: "slack",
  2: "light",
  3: "firm",
  4: "hard",
  5: "as hard as it goes",
};
/** A pull that was held for less says nothing yet. */
const LEAST_S = 3;

/** What was measured at one pull: squared speed times seconds, and the seconds. */
export type Pull = { power: number; seconds: number };

/** The pulls, from the first of PULLS on, with one more figure: that of the last `passed` seconds at
 * one of them. */
export function withPull(
  pulls: readonly Pull[],
  at: number,
  { gust, passed_s }: { gust: number | null; passed_s: number },
): Pull[] {
  if (gust === null || !(passed_s > 0)) return [...pulls];
  return pulls.map((one, k) =>
    k === at
      ? { power: one.power + passed_s * 4 ** (gust / 1.25), seconds: one.seconds + passed_s }
      : one,
  );
}

export const NO_PULLS: Pull[] = PULLS.map(() => ({ power: 0, seconds: 0 }));

/** Gust at a pull, null while it was held too briefly. */
export const gustOf = ({ power, seconds }: Pull): number | null =>
  seconds < LEAST_S ? null : Math.max(0, (1.25 / 2) * Math.log2(power / seconds));

/** The place of the pull that is steadiest, null until two can be compared. */
export function bestOf(pulls: readonly Pull[]): number | null {
  const known = pulls.flatMap((one, k) => {
    const gust = gustOf(one);
    return gust === null ? [] : [{ k, gust }];
  });
  if (known.length < 2) return null;
  return known.reduce((best, one) => (one.gust < best.gust ? one : best)).k;
}
