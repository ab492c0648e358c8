import type { DrillTrial, TrialSide } from "../../../api/trials";
import * as format from "../../../formats";

/** A difference as it is told: "−0.70", "+0.12". */
export function signed(value: number): string {
  const text = Math.abs(value).toFixed(2);
  return Number(text) === 0 ? "0.00" : `${value < 0 ? "−" : "+"}${text}`;
}

export const chance = (share: number) =>
  share >= 0.995
    ? "over 99\u00a0%"
    : share < 0.005
      ? "under 1\u00a0%"
      : `${Math.round(100 * share)}\u00a0%`;

export const pWords = (p: number) =>
  p < 0.001 ? "p under 0.001" : `p ${p.toFixed(p < 0.1 ? 3 : 2)}`;

/** What a difference comes to, in one sentence. */
export function verdictOf(side: TrialSide, gust = true): string {
  const { difference, low, high } = side;
  if (difference === null)
    return side.takes === 0 ? "No take of it counts yet." : "Not comparable yet.";
  if (low === null || high === null) return "A hint: one more session shows how far takes differ.";
  const [steadier, rougher] = [high < 0, low > 0];
  if (side.hint) {
    return `A hint, of ${format.takes(side.takes)}: three a side are the least to go by.`;
  }
  if (!steadier && !rougher) {
    return gust && Math.max(high, -low) <= 0.5
      ? "Level with the control, to within half a gust."
      : "Not told apart yet.";
  }
  return steadier ? "Steadier than the control." : "Rougher than the control.";
}

/** What is left to film until a difference is told well enough. */
export function leftWords(side: TrialSide, gust = true): string {
  if (side.difference === null || !gust) return "";
  if (side.more_takes === null) return "how many more takes cannot be told yet";
  if (side.more_takes === 0) return side.hint ? "" : "told to within half a gust";
  const takes = side.more_takes === 1 ? "1 more take" : `${side.more_takes} more takes`;
  return `about ${takes} a side until it is settled`;
}

/** The whole trial in one sentence, for who cannot see it. */
export function spoken(trial: DrillTrial): string {
  if (trial.why_not) return trial.why_not;
  return trial.sides
    .filter((side) => side.difference !== null)
    .map((side) => {
      const within =
        side.low === null || side.high === null
          ? ""
          : `, between ${signed(side.low)} and ${signed(side.high)}`;
      return `${side.name}: ${signed(side.difference ?? 0)}${within}. ${verdictOf(side, trial.figure.gust)}`;
    })
    .join(" ");
}
