import type { Space } from "../../api/settings";

type Kind = Space["kinds"][number];

export const KIND_WORDS: Record<Kind["key"], string> = {
  films: "Films as they came",
  second: "Films on the second disk",
  rejected: "Rejected films, gone after a week",
  arriving: "Films on their way",
  copies: "What a browser plays of them",
  renders: "Rendered takes and sequences",
  database: "The database",
  snapshots: "Copies of the database",
  parts: "Pieces of sequences and planned moves",
};

/** Kinds that take any space, with their share of all of it. */
export function shares(kinds: readonly Kind[]): (Kind & { share: number })[] {
  const all = kinds.reduce((sum, one) => sum + one.bytes, 0);
  return kinds
    .filter((one) => one.bytes > 0)
    .map((one) => ({ ...one, share: all > 0 ? one.bytes / all : 0 }));
}

const MONTH = new Intl.DateTimeFormat(undefined, { month: "short", year: "2-digit" });

/** A month of a year in the user's own way. */
export function monthWords(month: string): string {
  const [year, number] = month.split("-").map(Number);
  return year && number ? MONTH.format(new Date(year, number - 1, 15)) : month;
}
