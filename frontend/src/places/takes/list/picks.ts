/** Takes that were picked out of the list, to do one thing with all of them. */
export type Picks = ReadonlySet<number>;

export const NONE: Picks = new Set();

/** One more, or one less. */
export function toggled(picks: Picks, id: number): Picks {
  const next = new Set(picks);
  if (!next.delete(id)) next.add(id);
  return next;
}

/** Everything between two takes of the list as well, whichever stands first. */
export function stretched(picks: Picks, shown: readonly number[], from: number, to: number): Picks {
  const [a, b] = [shown.indexOf(from), shown.indexOf(to)];
  if (a < 0 || b < 0) return toggled(picks, to);
  return new Set([...picks, ...shown.slice(Math.min(a, b), Math.max(a, b) + 1)]);
}

/** In the order of the list; those that are not shown follow. */
export function inOrder(picks: Picks, shown: readonly number[]): number[] {
  const here = shown.filter((id) => picks.has(id));
  const known = new Set(here);
  return [...here, ...[...picks].filter((id) => !known.has(id))];
}

/** Where the choice goes after the take at a place was settled: to the next open one, else stays. */
export function nextToSettle(takes: readonly { choice: unknown }[], place: number): number {
  const after = takes.findIndex((take, index) => index > place && take.choice === null);
  return after >= 0 ? after : place;
}

/** Takes that can be looked at side by side. */
export const MOST_BESIDES = 24;

/** Where takes stand side by side, and what to call it: it says where that is not all of them. */
export function sideBySide(ids: readonly number[]) {
  const looked = ids.slice(0, MOST_BESIDES);
  return {
    to: `/takes/compare?takes=${looked.join(",")}`,
    words: looked.length < ids.length ? `First ${MOST_BESIDES} side by side` : "Side by side",
  };
}
