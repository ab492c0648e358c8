/** Where a tile of a wrapped strip is, and which tile is at a point; px. */
export type Grid = { columns: number; width: number; height: number };

export const GAP = 10;
const LEAST_TILE = 148;

/** Tiles side by side in a width, each of the same size. below: height of the words under a frame. */
export function gridOf(width: number, below: number): Grid {
  const columns = Math.max(1, Math.floor((width + GAP) / (LEAST_TILE + GAP)));
  const tile = (width - GAP * (columns - 1)) / columns;
  return { columns, width: tile + GAP, height: (tile * 9) / 16 + below + GAP };
}

/** The place in a strip of so many tiles that a point is over. */
export function placeAt({ columns, width, height }: Grid, x: number, y: number, count: number) {
  const column = Math.max(0, Math.min(columns - 1, Math.floor(x / width)));
  const row = Math.max(0, Math.floor(y / height));
  return Math.max(0, Math.min(count - 1, row * columns + column));
}

/** A list with the entry at one place moved to another. */
export function moved<T>(list: readonly T[], from: number, to: number): T[] {
  const rest = list.toSpliced(from, 1);
  const one = list[from];
  return one === undefined ? rest : rest.toSpliced(to, 0, one);
}
