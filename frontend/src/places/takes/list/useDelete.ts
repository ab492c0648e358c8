import { useCallback } from "react";
import type { TakeLine } from "../../../api/client";
import { useTakeAct } from "../../../api/takes";
import { useNotices } from "../../../ui/notices";

/** Delete a take and offer to undo it; works on although the page that asked is left. */
export function useDelete() {
  const act = useTakeAct();
  const { notify, fail } = useNotices();
  const send = act.mutateAsync;
  return useCallback(
    (take: Pick<TakeLine, "id" | "name">) => {
      const undo = () => void send({ act: "restore", id: take.id }).catch(fail);
      send({ act: "delete", id: take.id })
        .then(() => notify({ text: `Deleted “${take.name}”.`, undo }))
        .catch(fail);
    },
    [send, notify, fail],
  );
}
