import { scaleLinear, type ScaleLinear } from "d3-scale";
import { area, curveBasis } from "d3-shape";
import type { DrillTrial, TrialSide, TrialTake } from "../../../api/trials";

export type X = ScaleLinear<number, number>;
/** Takes of one variation in one session, on a line of their own. */
export type Line = { session: string; takes: TrialTake[] };
export type Row = { side: TrialSide; lines: Line[]; values: number[] };

const RIDGE_POINTS = 60;
const LEAST_WIDTH = 0.12;

/** A row for each variation that was filmed, the control first, its sessions apart and in order. */
export function rowsOf(trial: DrillTrial): Row[] {
  return trial.sides
    .map((side) => {
      const own = trial.takes.filter((take) => take.variation === side.key && take.value !== null);
      const sessions = [...new Set(own.map((take) => take.session_id))];
      const lines = sessions.map((id) => {
        const takes = own.filter((take) => take.session_id === id);
        return { session: takes[0]?.session ?? "", takes };
      });
      const values = own.filter((take) => take.why_out === "").map((take) => take.value ?? 0);
      return { side, lines, values };
    })
    .filter((row) => row.lines.length > 0);
}

/** From the least to the most value of all takes, with room at both ends. */
export function valueScale(trial: DrillTrial, from: number, to: number): X {
  const values = trial.takes.flatMap((take) => (take.value === null ? [] : [take.value]));
  const [low, high] = [Math.min(...values, Infinity), Math.max(...values, -Infinity)];
  if (!Number.isFinite(low)) return scaleLinear([0, 10], [from, to]);
  const room = Math.max(0.4, 0.12 * (high - low));
  return scaleLinear([Math.max(0, low - room), high + room], [from, Math.max(to, from + 1)]);
}

/** Around no difference, wide enough for every interval that is told, but not for hopeless ones. */
export function differenceScale(sides: readonly TrialSide[], from: number, to: number): X {
  const told = sides.filter((side) => side.difference !== null);
  const sizes = told.map((side) => Math.abs(side.difference ?? 0));
  const widest = told.flatMap((side) => [Math.abs(side.low ?? 0), Math.abs(side.high ?? 0)]);
  const most = Math.max(1, ...sizes.map((size) => size * 1.3));
  const reach = Math.min(Math.max(most, ...widest.map((one) => one * 1.1)), Math.max(3, 2 * most));
  return scaleLinear([-reach, reach], [from, Math.max(to, from + 1)]);
}

/** A ridge over where takes lie: higher where more of them do. "" for fewer than three. */
export function ridgeOver(values: readonly number[], x: X, foot: number, height: number): string {
  if (values.length < 3) return "";
  const mean = values.reduce((sum, one) => sum + one, 0) / values.length;
  const spread = Math.sqrt(
    values.reduce((sum, one) => sum + (one - mean) ** 2, 0) / (values.length - 1),
  );
  // Scott's rule, as a smooth hill needs at these numbers.
  const width = Math.max(LEAST_WIDTH, 1.06 * spread * values.length ** -0.2);
  const [low, high] = x.domain() as [number, number];
  const points = Array.from({ length: RIDGE_POINTS + 1 }, (_, k) => {
    const at = low + ((high - low) * k) / RIDGE_POINTS;
    const hill = values.reduce((sum, one) => sum + Math.exp(-0.5 * ((at - one) / width) ** 2), 0);
    return { at, hill };
  });
  const top = Math.max(...points.map((point) => point.hill), 1e-9);
  return (
    area<(typeof points)[number]>()
      .x((point) => x(point.at))
      .y0(foot)
      .y1((point) => foot - (height * point.hill) / top)
      .curve(curveBasis)(points) ?? ""
  );
}

/** Cut an interval to what is drawn; whether it goes on at either end. */
export function drawnSpan(low: number, high: number, x: X) {
  const [least, most] = x.domain() as [number, number];
  return {
    from: x(Math.max(low, least)),
    to: x(Math.min(high, most)),
    openLeft: low < least,
    openRight: high > most,
  };
}
