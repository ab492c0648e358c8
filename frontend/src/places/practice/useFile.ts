import { useSessionChange, type SessionDetail } from "../../api/practice";
import * as format from "../../formats";
import { useNotices } from "../../ui/notices";
import { undoing, type Filed } from "./filing";

/** File films under planned takes, or take them out, with one undo for all of them. */
export function useFile({ session }: SessionDetail) {
  const change = useSessionChange(session.id);
  const { tell, fail } = useNotices();
  const put = (filed: Filed[]) =>
    Promise.all(
      filed.map(({ position, take_id }) =>
        change.mutateAsync({ act: "note", position, note: { take_id } }),
      ),
    );
  return (filed: Filed[]) => {
    const before = undoing(filed, session.takes);
    const out = filed.every((one) => one.take_id === null);
    tell(put(filed), {
      text: out ? "Taken out again." : `Filed ${format.takes(filed.length)}.`,
      undo: () => void put(before).catch(fail),
    });
  };
}
