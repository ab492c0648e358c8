import type { Season, Trend, Work } from "../../../api/progress";
import * as format from "../../../formats";
import { signed } from "../trials/words";

/** What a trend comes to: "comes down 0.24 a week (0.10 to 0.40)". */
export function trendWords(trend: Trend | null): string {
  if (trend === null) return "Too few takes to tell a trend.";
  const within = `(${signed(trend.low)} to ${signed(trend.high)})`;
  if (trend.high < 0) return `Getting steadier: ${signed(trend.slope)} a week ${within}.`;
  if (trend.low > 0) return `Getting rougher: ${signed(trend.slope)} a week ${within}.`;
  return `No trend can be told: ${signed(trend.slope)} a week ${within}.`;
}

/** The same in the space of a list. */
export function shortTrend(trend: Trend | null): string {
  if (trend === null) return "no trend yet";
  if (trend.high < 0) return `steadier, ${signed(trend.slope)} a week`;
  if (trend.low > 0) return `rougher, ${signed(trend.slope)} a week`;
  return "no trend";
}

export function workWords(work: Work): string {
  const far = `Usually ${format.gust(work.over)} over its mark of ${format.gust(work.target)}`;
  if (work.weeks === null) return `${far}, and it does not surely come down.`;
  const weeks = Math.max(1, Math.round(work.weeks));
  return `${far}; as it comes down, about ${format.counted(weeks, "week")} to go.`;
}

/** "38 min", "4.2 h". */
export const practised = (minutes: number) =>
  Math.round(minutes) < 60 ? `${Math.round(minutes)} min` : `${(minutes / 60).toFixed(1)} h`;

export function totalWords(season: Season): string {
  const sum = (of: (week: Season["weeks"][number]) => number) =>
    season.weeks.reduce((all, week) => all + of(week), 0);
  const sessions = sum((week) => week.sessions);
  return `${format.takes(sum((week) => week.takes))} in ${format.counted(sessions, "session")}, ${practised(sum((week) => week.minutes))} of practice.`;
}
