import { scaleLinear, type ScaleLinear } from "d3-scale";

/** A scale around values, with room at both ends. */
export function around(
  values: readonly number[],
  from: number,
  to: number,
  room = 0.4,
): ScaleLinear<number, number> {
  const [low, high] = [Math.min(...values, Infinity), Math.max(...values, -Infinity)];
  if (!Number.isFinite(low)) return scaleLinear([0, 10], [from, to]);
  return scaleLinear([low - room, high + room], [from, to]);
}
