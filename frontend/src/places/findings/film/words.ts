import type { FilmLine } from "../../../api/joined";
import * as format from "../../../formats";

/** How many in a hundred of its takes were used. */
export const share = (one: FilmLine) => `${Math.round((100 * one.used) / one.takes)} %`;

/** Gust of what was used against the usual take. */
export function gustWords(one: FilmLine): string {
  const usual = `usual ${format.gust(one.usual)}`;
  return one.gust === null ? usual : `used ${format.gust(one.gust)}, ${usual}`;
}
