/** One thing that two versions do not have in common. */
export type Difference = { what: string; mine: string; other: string };

/** Where two versions of a thing differ, in words: "optics, focal mm: 35 | 50". */
export function differences(mine: unknown, other: unknown, path: string[] = []): Difference[] {
  if (JSON.stringify(mine) === JSON.stringify(other)) return [];
  if (isParts(mine) && isParts(other)) {
    const names = new Set([...Object.keys(mine), ...Object.keys(other)]);
    return [...names].flatMap((name) => differences(mine[name], other[name], [...path, name]));
  }
  const what = path.map(inWords).join(", ");
  return [{ what, mine: shown(mine), other: shown(other) }];
}

/** "wanted_s" is "wanted (s)". */
const inWords = (name: string) =>
  name.replace(/_(s|ms|mm|g|n|px|pct|hz|fps|deg|kg)$/, " ($1)").replaceAll("_", " ");

type Parts = Record<string, unknown>;
const isParts = (value: unknown): value is Parts => typeof value === "object" && value !== null;

function shown(value: unknown): string {
  if (value === null || value === undefined) return "–";
  if (typeof value === "string" || typeof value === "number") return String(value);
  if (typeof value === "boolean") return value ? "yes" : "no";
  return JSON.stringify(value);
}
