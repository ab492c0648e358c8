import { useCallback } from "react";
import type { Brief } from "../../api/client";
import { changeBrief, useKitChanged, type BriefItem } from "../../api/kit";
import { useNotices } from "../../ui/notices";

/** "3 takes" or "1 take". */
export function takesInWords(count: number): string {
  return count === 1 ? "1 take" : `${count} takes`;
}

/** Change a named brief, say what followed, and offer to undo it. */
export function useSaveBrief() {
  const { say, fail } = useNotices();
  const changed = useKitChanged();
  return useCallback(
    async (item: BriefItem, name: string, brief: Brief) => {
      const before = { name: item.name, brief: item.brief };
      const answer = await changeBrief(item.id, { name, brief });
      changed();
      const judged = answer.judged + answer.left;
      say({
        text: `“${answer.item.name}” is changed.`,
        hint: judged > 0 ? `${takesInWords(judged)} judged again, none measured again.` : undefined,
        undo: () => void changeBrief(item.id, before).then(changed).catch(fail),
      });
    },
    [say, fail, changed],
  );
}
