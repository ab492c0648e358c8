import { useChoose, type Choice } from "../../../api/decisions";
import type { TakeLine } from "../../../api/client";
import { each } from "../../../api/each";
import { useNotices } from "../../../ui/notices";
import { CHOICE_WORDS } from "./words";

/** Settle a take, with its undo. */
export function useSettle() {
  const put = useChoose();
  const { notify, fail } = useNotices();
  return (take: Pick<TakeLine, "id" | "name" | "choice">, choice: Choice | null) => {
    const { id, name, choice: was } = take;
    each(
      put,
      { id, choice },
      {
        onError: fail,
        onSuccess: () =>
          notify({
            text:
              choice === null ? `“${name}” is open again.` : `${CHOICE_WORDS[choice]}: “${name}”.`,
            undo: () => each(put, { id, choice: was }, { onError: fail }),
          }),
      },
    );
  };
}
