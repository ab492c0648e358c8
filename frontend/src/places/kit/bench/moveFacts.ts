import type { Fact } from "../../../ui/Facts";
import type { Quantity } from "../../../units";
import type { MoveAsk } from "./moves";
import type { Move } from "./types";

type InUnits = (quantity: Quantity, value: number | null | undefined) => string;

/** The figures of a move that it has, in the order in which they matter. */
export function moveFacts(move: Move, ask: MoveAsk, inUnits: InUnits): Fact[] {
  const facts: (Fact | false)[] = [
    { words: "Crosses the frame", value: inUnits("percent", Math.abs(move.extent_pct)) },
    move.extent_deg !== null && { words: "Turns", value: inUnits("degrees", move.extent_deg) },
    { words: "Speed on screen", value: inUnits("percent_s", Math.abs(move.speed_pct_s)) },
    move.speed_deg_s !== null && {
      words: "Turning speed",
      value: inUnits("degrees_s", Math.abs(move.speed_deg_s)),
    },
    move.speed_m_s !== null && {
      words: "Travelling speed",
      value: inUnits("speed_m_s", Math.abs(move.speed_m_s)),
    },
    move.crosses_s !== null && {
      words: "A thing crosses in",
      value: inUnits("seconds", move.crosses_s),
    },
    move.counter_turn_deg !== null && {
      words: "Counter-turn to keep the subject",
      value: inUnits("degrees", move.counter_turn_deg),
    },
    sideways(ask) && {
      words: "Foreground, subject, background travel",
      value: [move.foreground_pct, move.subject_pct, move.background_pct]
        .map((value) => `${value.toFixed(0).replace("-", "−")}`)
        .join(" · ")
        .concat(" %"),
    },
    move.subject_scale !== null && {
      words: "Subject ends larger by",
      value: inUnits("scale", move.subject_scale),
    },
    move.background_scale !== null && {
      words: "Background ends larger by",
      value: inUnits("scale", move.background_scale),
    },
    move.focal_to_mm !== null && {
      words: "Zoom to, equivalent",
      value: inUnits("optics_mm", move.focal_to_mm),
    },
    move.step_m !== null && { words: "Length of a step", value: inUnits("short_m", move.step_m) },
    move.dip_m !== null && {
      words: ask.kind === "walk" ? "Bounce on stiff legs" : "Dips",
      value: `${inUnits("short_m", move.dip_m)}, ${inUnits("percent", move.dip_pct)}`,
      warns: (move.dip_pct ?? 0) > 1,
    },
    move.horizon_deg !== null && {
      words: "Horizon tips",
      value: inUnits("degrees", move.horizon_deg),
      warns: Math.abs(move.horizon_deg) > 1,
    },
  ];
  return facts.filter((fact): fact is Fact => fact !== false);
}

const sideways = (ask: MoveAsk) =>
  ["slide", "orbit", "rise", "monopod_lean", "pan", "tilt"].includes(ask.kind);
