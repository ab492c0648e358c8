import { useCallback } from "react";
import type { Brief } from "../../api/client";
import { useChanged } from "../../api/keys";
import { changeBrief, type BriefAsk, type BriefItem } from "../../api/kit";
import * as format from "../../formats";
import { useNotices } from "../../ui/notices";

/** Change a named brief that is still as it was when the change was begun (base; null overwrites it), notify what followed, and offer to undo it. */
export function useSaveBrief() {
  const { notify, fail } = useNotices();
  const changed = useChanged();
  return useCallback(
    async (item: BriefItem, name: string, brief: Brief, base: BriefAsk | null) => {
      const before = { name: item.name, brief: item.brief };
      // Whether it was kept or refused: what is kept now is to be seen.
      const answer = await changeBrief(item.id, { name, brief }, base).finally(() =>
        changed("verdicts"),
      );
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
