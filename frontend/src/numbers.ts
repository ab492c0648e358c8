/** The numbers in a list such as "24, 25; 29.97"; anything else in it is left out. */
export function numbersOf(text: string): number[] {
  return text
    .split(/[,;\s]+/)
    .map((part) => Number(part))
    .filter((value) => Number.isFinite(value) && value > 0);
}
