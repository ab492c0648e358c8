import type { SessionDetail, SessionTake } from "../../api/practice";
import type { Step } from "./steps";

/** The take that was filmed last before a step's end, for the notes. */
export function lastFilmed(detail: SessionDetail, step: Step | null): SessionTake | undefined {
  const until = step ? step.position : detail.session.takes.length - 1;
  return detail.session.takes.findLast((take) => take.position <= until && take.state === "filmed");
}
