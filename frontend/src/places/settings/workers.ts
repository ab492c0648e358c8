import type { Machine, Seat } from "../../api/workers";
import * as format from "../../formats";

/** What is said of a machine beside its name. */
export function lastHere(machine: Machine): string {
  if (machine.seats.length)
    return machine.seats.length === 1 ? "here" : `here, ${machine.seats.length} at work`;
  if (machine.seen_at === null) return "has not come yet";
  const seen = format.when(machine.seen_at);
  return `last here ${seen.day}, ${seen.time}`;
}

const DOING = { measure: "measures", render: "renders" } as const;

/** What a worker does, how fast, and how much it has done. */
export function seatWords(seat: Seat): { doing: string; pace: string } {
  const works = format.counted(seat.ended, "piece of work", "pieces of work");
  const films = seat.ended ? `${works} done` : "nothing done yet";
  const speed = seat.speed === null ? "" : `${format.times(seat.speed)} as fast as films play, `;
  return {
    doing: seat.stopping
      ? "stops"
      : seat.doing
        ? `${DOING[seat.doing]} ${seat.film}`
        : "waits for work",
    pace: speed + films,
  };
}
