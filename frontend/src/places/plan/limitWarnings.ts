import type { Limits } from "../../api/limits";
import type { Drill, PracticePlan } from "../../api/practice";
import * as format from "../../formats";

/** By drill, which of its planned ways a lens is too long for. focal: that is practised with; null is
 * the set-up's in use. Ways of too few takes warn of nothing, nor do drills that take a long lens: they
 * are meant to go beyond a limit. */
export function limitWarnings(
  plan: PracticePlan,
  limits: Limits,
  focal: number | null,
  drills: Record<string, Pick<Drill, "needs">>,
): Record<string, string> {
  const lens = focal ?? limits.focal_eq_mm;
  if (lens === null) return {};
  const found: Record<string, string> = {};
  for (const block of plan.blocks) {
    if (drills[block.drill_key]?.needs.includes("long_lens")) continue;
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
