/** A key that is not taken yet: the given one with a number. */
export function freeKey(key: string, taken: readonly string[]): string {
  const base = key.replace(/-own-\d+$/, "");
  for (let number = 1; ; number++) {
    const free = `${base}-own-${number}`;
    if (!taken.includes(free)) return free;
  }
}

/** Lines of a text as a list, empty ones left out. */
export function linesOf(text: string): string[] {
  return text
    .split("\n")
    .map((line) => line.trim())
    .filter(Boolean);
}
