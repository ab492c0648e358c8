import * as format from "../../../formats";

const ORDINALS: Record<number, string> = { 2: "second", 3: "third" };

/** Which frames of a fast film are read, because at full speed no others are shown. */
export function shownWords(fps: number, step: number): string {
  const rate = format.rate(Number((fps / step).toFixed(2)));
  if (Number.isInteger(step)) {
    const every = ORDINALS[step] ?? `${step}th`;
    return `Read at ${rate}: at full speed every ${every} frame of ${format.rate(fps)} is shown.`;
  }
  return (
    `Read at ${rate}: at full speed ${Number(step.toFixed(2))} frames of ${format.rate(fps)} go into each one shown, ` +
    "the latest filmed by then, so that a move stutters. Slow it, or deliver at a rate that divides evenly."
  );
}
