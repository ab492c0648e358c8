export const CHOICE_WORDS = {
  keep: "Kept",
  reject: "Rejected",
  retake: "To film again",
} as const;

/** A take's name under the heading of its drill, which a filed take's name ends with. */
export function nameUnder(heading: string, name: string): string {
  const ending = ` · ${heading}`;
  return name.endsWith(ending) ? name.slice(0, -ending.length) : name;
}
