import { useCallback } from "react";
import { saveTable, useChangeMany, useRenderMany, useUndoMany } from "../../../api/many";
import { useForgetRender } from "../../../api/decisions";
import * as format from "../../../formats";
import { useNotices } from "../../../ui/notices";

/** What can be done with many takes at once, each with one undo. */
export function useMany() {
  const changing = useChangeMany();
  const undoing = useUndoMany();
  const rendering = useRenderMany();
  const forgetting = useForgetRender();
  const { notify, fail } = useNotices();
  const [send, takeBack, render, forget] = [
    changing.mutateAsync,
    undoing.mutateAsync,
    rendering.mutateAsync,
    forgetting.mutateAsync,
  ];
  const change = useCallback(
    (ids: number[], body: Parameters<typeof send>[0]["change"], said: string) => {
      send({ ids, change: body })
        .then((done) => {
          const id = done.change_id;
          const undo = id === null ? undefined : () => void takeBack(id).catch(fail);
          notify({ text: `${said}: ${format.takes(done.takes)}.`, ...(undo && { undo }) });
        })
        .catch(fail);
    },
    [send, takeBack, notify, fail],
  );
  const renderAll = useCallback(
    (ids: number[]) => {
      render(ids)
        .then(({ render_ids, passed_over }) => {
          const over =
            passed_over > 0 ? `${format.takes(passed_over)} left: nothing to make.` : undefined;
          const undo = () => render_ids.forEach((id) => void forget(id).catch(fail));
          notify({
            text: `${format.takes(render_ids.length)} to be rendered; each stands on its page.`,
            hint: over,
            ...(render_ids.length > 0 && { undo }),
          });
        })
        .catch(fail);
    },
    [render, forget, notify, fail],
  );
  const save = useCallback(
    (ids: number[], form: "csv" | "json") => void saveTable(ids, form).catch(fail),
    [fail],
  );
  return { change, renderAll, save };
}

export type Many = ReturnType<typeof useMany>;
