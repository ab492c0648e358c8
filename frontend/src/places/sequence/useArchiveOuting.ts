import { useParams } from "react-router";
import { useOutingChange, type OutingChange } from "../../api/outings";
import { useTelling } from "../../ui/useTelling";

/** Puts the page's outing away, with its undo. */
export function useArchiveOuting() {
  const id = Number(useParams()["id"]);
  const change = useOutingChange(id);
  const tell = useTelling();
  return () => {
    const away: OutingChange = { act: "archive" };
    tell(change, away, { text: "Outing put away.", undo: { act: "restore" } });
  };
}
