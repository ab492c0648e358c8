import * as format from "../formats";
import { BANDS } from "./bands";

const MOVES: Record<string, string> = {
  pan: "a pan",
  tilt: "a tilt",
  roll: "a roll",
  push: "a push or pull",
};
export const moveKind = (move: string | null) => (move === null ? "held" : (MOVES[move] ?? move));

/** Shares of each band, and the move, in words. */
export function exampleWords(shares: Partial<Record<string, number>>, move: string | null): string {
  const told = BANDS.flatMap((band) => {
    const share = shares[band.name] ?? 0;
    return share < 0.01 ? [] : [`${band.words.toLowerCase()} ${format.share(share)}`];
  });
  return [...told, moveKind(move)].join(", ");
}
