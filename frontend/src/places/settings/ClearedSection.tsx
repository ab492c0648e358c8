import { useState } from "react";
import { useClear, useCleared } from "../../api/settings";
import { each } from "../../api/each";
import * as format from "../../formats";
import { Button } from "../../ui/Button";
import { Dialog } from "../../ui/Dialog";
import { FaultView } from "../../ui/FaultView";
import { useNotices } from "../../ui/notices";

/** Rejected originals cleared from the disk: path, small copy, still and figures stay. */
export function ClearedSection() {
  const found = useCleared();
  const act = useClear();
  const { notify, fail } = useNotices();
  const [asking, setAsking] = useState(false);
  if (found.isLoadingError) return <FaultView error={found.error} />;
  if (!found.data) return null;
  const { rejected, rejected_bytes, aside, aside_bytes } = found.data;
  const restore = (clip_id: number) => each(act, { act: "restore", clip_id }, { onError: fail });
  /** One after the other, so that the last answer is the one that holds. */
  const restoreAll = async (clips: number[]) => {
    for (const clip_id of clips) await act.mutateAsync({ act: "restore", clip_id });
  };
  const clear = () =>
    each(
      act,
      { act: "clear" },
      {
        onError: fail,
        onSuccess: (answer) =>
          notify({
            text: `Put ${format.counted(rejected, "original")} aside.`,
            undo: () =>
              void restoreAll(answer.aside.slice(-rejected).map((one) => one.clip_id)).catch(fail),
          }),
      },
    );
  return (
    <section aria-label="Rejected originals" className="px-4 py-4 sm:px-8">
      <h2 className="title text-heading">Rejected originals</h2>
      <p className="max-w-[720px] text-note text-stone">
        The original films of rejected takes can be cleared from the disk. Their path, figures,
        still and small copy stay. They are put aside first, and are gone for good a week later.
      </p>
      <p className="mt-2 flex flex-wrap items-center gap-3">
        <Button disabled={rejected === 0 || act.isPending} onClick={clear}>
          {rejected === 0
            ? "No rejected take holds an original"
            : `Clear ${format.counted(rejected, "original")}, ${format.fileSize(rejected_bytes)}`}
        </Button>
        {aside_bytes > 0 && (
          <Button look="bare" onClick={() => setAsking(true)}>
            Free {format.fileSize(aside_bytes)} now
          </Button>
        )}
      </p>
      {aside.length > 0 && (
        <ul className="mt-3 max-w-[720px] border-t border-line">
          {aside.map((one) => (
            <li
              key={one.clip_id}
              className="flex items-center gap-4 border-b border-line py-1.5 text-note"
            >
              <span className="min-w-0 flex-1 truncate font-semibold">{one.name}</span>
              <span className="text-stone">{format.fileSize(one.size_bytes)}</span>
              {one.gone_on === null ? (
                <span className="text-stone">gone for good</span>
              ) : (
                <>
                  <span className="text-stone">until {format.when(one.gone_on).day}</span>
                  <Button look="bare" onClick={() => restore(one.clip_id)}>
                    Bring back
                  </Button>
                </>
              )}
            </li>
          ))}
        </ul>
      )}
      <Dialog title="Free the space now?" open={asking} onClose={() => setAsking(false)}>
        <p className="mb-4">
          The originals that were put aside are removed at once, {format.fileSize(aside_bytes)}.
          This cannot be undone.
        </p>
        <Button
          look="main"
          onClick={() => {
            setAsking(false);
            each(act, { act: "empty" }, { onError: fail });
          }}
        >
          Remove them for good
        </Button>
      </Dialog>
    </section>
  );
}
