import { kept } from "../api/browserStore";

const KEY = "ridgewind-best-hold";

type Kept = Record<string, number>;

function all(): Kept {
  try {
    return JSON.parse(kept.get(KEY) ?? "{}") as Kept;
  } catch {
    return {};
  }
}

/** The longest hold until now at a target, s, on this device; 0 where none is known. */
export const bestHold = (what: string): number => all()[what] ?? 0;

/** Keep a hold where it beats the best. */
export function keepHold(what: string, seconds: number) {
  const before = all();
  if (seconds <= (before[what] ?? 0)) return;
  kept.set(KEY, JSON.stringify({ ...before, [what]: seconds }));
}
