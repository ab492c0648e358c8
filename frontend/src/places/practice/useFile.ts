import { useSessionChange, type SessionDetail } from "../../api/practice";
import * as format from "../../formats";
import { useNotices } from "../../ui/notices";
import { undoing, type Filed } from "./filing";

/** File films under planned takes, or take them out, with one undo for all of them. */
export function useFile({ session }: SessionDetail) {
  const change = useSessionChange(session.id);
  const { notify } = useNotices();
  const put = ({ position, take_id }: Filed) =>
    change.mutate({ act: "note", position, note: { take_id } });
  return (filed: Filed[]) => {
    const before = undoing(filed, session.takes);
    filed.forEach(put);
    const out = filed.every((one) => one.take_id === null);
    notify({
      text: out ? "Taken out again." : `Filed ${format.takes(filed.length)}.`,
      undo: () => before.forEach(put),
    });
  };
}
