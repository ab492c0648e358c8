const LONG = 6;
const SHORT = 4;

/** How many cells of the picture can be named. */
export const CELLS = LONG * SHORT;

/** Columns and rows of the cells of a picture. */
export function shapeOf(clip: { width: number; height: number }) {
  return clip.height > clip.width ? { across: SHORT, down: LONG } : { across: LONG, down: SHORT };
}

/** A cell's name for those who hear it. */
export function nameOf(cell: number, across: number): string {
  return `Row ${Math.floor(cell / across) + 1}, column ${(cell % across) + 1}`;
}

/** The cell that an arrow key leads to; null for other keys and past the edges. */
export function moved(key: string, from: number, across: number, down: number): number | null {
  const [row, column] = [Math.floor(from / across), from % across];
  if (key === "ArrowLeft") return column > 0 ? from - 1 : null;
  if (key === "ArrowRight") return column < across - 1 ? from + 1 : null;
  if (key === "ArrowUp") return row > 0 ? from - across : null;
  if (key === "ArrowDown") return row < down - 1 ? from + across : null;
  return null;
}
