import { useCallback } from "react";
import type { Brief } from "../../api/client";
import { useChanged } from "../../api/keys";
import { changeBrief, type BriefItem } from "../../api/kit";
import * as format from "../../formats";
import { useNotices } from "../../ui/notices";

/** Change a named brief, notify what followed, and offer to undo it. */
export function useSaveBrief() {
  const { notify, fail } = useNotices();
  const changed = useChanged();
  return useCallback(
    async (item: BriefItem, name: string, brief: Brief) => {
      const before = { name: item.name, brief: item.brief };
      const answer = await changeBrief(item.id, { name, brief });
      changed("verdicts");
      const judged = answer.judged + answer.left;
      notify({
        text: `“${answer.item.name}” is changed.`,
        hint: judged > 0 ? `${format.takes(judged)} judged again, none measured again.` : undefined,
        undo: () => void changeBrief(item.id, before).then(() => changed("verdicts"), fail),
      });
    },
    [notify, fail, changed],
  );
}
