import type { Bench, BenchAnswer, Kit, Problem, SetupAsk } from "../../../api/kit";
import type { RigAsk } from "./rig";

export type PanelName = "picture" | "shake" | "time" | "move" | "rig" | "strap";

/** What every panel gets: the set-up as it stands, its figures, and how to change it. */
export type PanelProps = {
  setup: SetupAsk;
  answer: BenchAnswer;
  /** The answer is still that of the set-up before the last change: apply nothing from it. */
  late: boolean;
  kit: Kit;
  change: (bench: Partial<Bench>) => void;
  problem: (field: string) => string | undefined;
  /** A support was made on the bench: take it onto the rig. */
  onSupport: (id: number, rig: RigAsk) => void;
  onNoSupport: (id: number) => void;
};

/** The message for a field of a panel, if it broke a rule. */
export function problemIn(
  problems: readonly Problem[],
  panel: Problem["panel"],
  field: string,
): string | undefined {
  return problems.find((one) => one.panel === panel && one.field === field)?.message;
}
