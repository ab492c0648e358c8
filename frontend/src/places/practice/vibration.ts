import type { Step } from "./steps";

const PATTERNS: Partial<Record<Step["kind"], number[]>> = {
  slate: [60],
  count: [60, 80, 60],
  roll: [350],
  rest: [120, 80, 120],
};

/** Let a phone be felt as a step begins, where it can. */
export function buzz(kind: Step["kind"]) {
  const pattern = PATTERNS[kind];
  // Browsers hold it back, and say so, before the page was touched.
  if (pattern && navigator.userActivation?.hasBeenActive) navigator.vibrate?.(pattern);
}
