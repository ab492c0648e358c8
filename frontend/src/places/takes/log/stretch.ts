/** A part of a log, s from its first sample. */
export type Stretch = readonly [from_s: number, to_s: number];

type Log = { seconds: number; longest: number };

/** A stretch that begins elsewhere; its end follows where it would lie before it or too far off. */
export function beginningAt([, to]: Stretch, from: number, { seconds, longest }: Log): Stretch {
  const furthest = Math.min(seconds, from + longest);
  return [from, to > from ? Math.min(to, furthest) : furthest];
}

/** A stretch that ends elsewhere; its beginning follows likewise. */
export function endingAt([from]: Stretch, to: number, { seconds, longest }: Log): Stretch {
  const end = Math.min(seconds, to);
  const furthest = Math.max(0, end - longest);
  return [from < end ? Math.max(from, furthest) : furthest, end];
}
