import type { Proposals, SessionTake } from "../../api/practice";

/** A film in the drawing. filed: the take it is filed under, null while it is loose. */
export type Film = { id: number; name: string; x: number; filed: number | null };
/** A planned take in the drawing, and the film that is filed under it. */
export type Slot = { position: number; x: number; filmed: boolean; film: Film | null };

const MARGIN_PX = 10;
const NEAR_PX = 24;

const spread = (index: number, count: number, width: number) =>
  MARGIN_PX + ((width - 2 * MARGIN_PX) * (index + 0.5)) / Math.max(count, 1);

/** Where takes and loose films stand, px from the left. */
export function layOut(
  proposals: Pick<Proposals, "films">,
  takes: readonly Pick<SessionTake, "position" | "state" | "take_id" | "take_name">[],
  width: number,
): { takes: Slot[]; films: Film[] } {
  const byClock = [...proposals.films].sort((a, b) => (a.begun_s ?? 0) - (b.begun_s ?? 0));
  return {
    takes: takes.map((take, index) => {
      const x = spread(index, takes.length, width);
      const { position, take_id: id, take_name: name } = take;
      const film = id === null ? null : { id, name: name ?? "Film", x, filed: position };
      return { position, x, filmed: take.state === "filmed", film };
    }),
    films: byClock.map((film, index) => ({
      id: film.take_id,
      name: film.name,
      x: spread(index, byClock.length, width),
      filed: null,
    })),
  };
}

/**
 * What a film is dropped on: a take's position, null for the row of loose films, undefined for
 * neither. middleY: between the two rows.
 */
export function dropOf(
  at: { x: number; y: number },
  takes: readonly Slot[],
  middleY: number,
): number | null | undefined {
  if (at.y > middleY) return null;
  const nearest = takes.reduce<Slot | null>(
    (best, one) => (best && Math.abs(best.x - at.x) <= Math.abs(one.x - at.x) ? best : one),
    null,
  );
  return nearest && Math.abs(nearest.x - at.x) <= NEAR_PX ? nearest.position : undefined;
}
