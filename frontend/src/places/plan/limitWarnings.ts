import type { Limits } from "../../api/limits";
import type { PracticePlan } from "../../api/practice";
import * as format from "../../formats";

/** Drills that are about a lens that is too long: they are meant to go beyond a limit. */
const BEYOND_BY_INTENT = new Set(["lens-tremor-limit", "long-lens-hold"]);

/** By drill, which of its planned ways a lens is too long for. focal: that is practised with; null is
 * the set-up's in use. Ways of too few takes warn of nothing. */
export function limitWarnings(
  plan: PracticePlan,
  limits: Limits,
  focal: number | null,
): Record<string, string> {
  const lens = focal ?? limits.focal_eq_mm;
  if (lens === null) return {};
  const found: Record<string, string> = {};
  for (const block of plan.blocks) {
    if (BEYOND_BY_INTENT.has(block.drill_key)) continue;
    const beyond = limits.techniques.filter(
      (one) =>
        one.drill_key === block.drill_key &&
        !one.hint &&
        block.order.includes(one.key.split("/")[1] ?? "") &&
        one.longest_mm < lens,
    );
    if (beyond.length > 0) {
      const told = beyond.map(
        (one) => `${one.name.toLowerCase()} ${format.longestLens(one.longest_mm)}`,
      );
      found[block.drill_key] =
        `${format.millimetres(Math.round(lens))} is longer than you hold this way: ${told.join(", ")}.`;
    }
  }
  return found;
}
