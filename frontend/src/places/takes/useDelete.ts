import { useCallback } from "react";
import type { TakeLine } from "../../api/client";
import { useTakeAct } from "../../api/takes";
import { useNotices } from "../../ui/notices";

/** Delete a take and offer to undo it. */
export function useDelete() {
  const act = useTakeAct();
  const { say, fail } = useNotices();
  const mutate = act.mutate;
  return useCallback(
    (take: Pick<TakeLine, "id" | "name">) => {
      mutate(
        { act: "delete", id: take.id },
        {
          onError: fail,
          onSuccess: () =>
            say({
              text: `Deleted “${take.name}”.`,
              undo: () => mutate({ act: "restore", id: take.id }, { onError: fail }),
            }),
        },
      );
    },
    [mutate, say, fail],
  );
}
