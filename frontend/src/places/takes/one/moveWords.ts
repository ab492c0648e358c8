import type { Judgement } from "../../../api/client";
import * as format from "../../../formats";

type MoveAnswer = NonNullable<Judgement["move"]>;
type Move = NonNullable<MoveAnswer["move"]>;
type Join = MoveAnswer["entry"];

const KIND_WORDS = {
  pan: "Pan or slide",
  tilt: "Tilt or rise",
  roll: "Roll",
  push: "Push",
} as const satisfies Record<Move["kind"], string>;

export function moveWords(move: Move): string {
  const size =
    move.extent_deg === null
      ? `the picture ${move.extent < 0 ? "shrinks" : "grows"} by ${Math.abs(move.extent).toFixed(0)} %`
      : move.kind === "roll"
        ? `${move.extent_deg.toFixed(0)}°`
        : `${move.extent.toFixed(0)} % of the long side, ${move.extent_deg.toFixed(0)}° as a turn`;
  return `${KIND_WORDS[move.kind]} ${move.direction}, ${size}, in ${(move.end_s - move.start_s).toFixed(1)} s.`;
}

export function moveFacts(move: Move): [string, string][] {
  const facts: [string, string][] = [
    ["Even speed", format.share(move.evenness)],
    ["Went back", move.reversals === 0 ? "never" : `${move.reversals} times`],
    ["Off the straight line", format.percentOfWidth(move.cross_pct)],
    ["Eased in", format.seconds(move.ease_in_s)],
    ["Eased out", format.seconds(move.ease_out_s)],
  ];
  if (move.kind === "push") facts.push(["Dip", format.percentOfWidth(move.dip_pct)]);
  return facts;
}

export function joinWords(join: Join): string {
  if (join.direction === null) return "still";
  return `moving ${join.direction} at ${join.speed_pct_s.toFixed(0)} %/s`;
}
