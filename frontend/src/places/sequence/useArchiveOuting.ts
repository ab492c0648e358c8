import { useParams } from "react-router";
import { useOutingChange } from "../../api/outings";
import { useNotices } from "../../ui/notices";

/** Puts the page's outing away, with its undo. */
export function useArchiveOuting() {
  const id = Number(useParams()["id"]);
  const { mutate } = useOutingChange(id);
  const { notify } = useNotices();
  return () => {
    mutate({ act: "archive" });
    notify({ text: "Outing put away.", undo: () => mutate({ act: "restore" }) });
  };
}
