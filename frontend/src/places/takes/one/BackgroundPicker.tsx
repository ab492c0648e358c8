import { useState, type KeyboardEvent } from "react";
import type { ClipFacts, TakeDetail } from "../../../api/client";
import { useNameBackground } from "../../../api/points";
import { useForgetWhoseMotion } from "../../../api/takes";
import { Button } from "../../../ui/Button";
import { useNotices } from "../../../ui/notices";
import { CELLS, moved, nameOf, shapeOf } from "./cells";

type Props = { detail: TakeDetail; clip: ClipFacts; onClose: () => void };

/** Over the picture: cells that the shooter touches where the background is seen. */
export function BackgroundPicker({ detail, clip, onClose }: Props) {
  const [chosen, setChosen] = useState<ReadonlySet<number>>(() => new Set(detail.background));
  const name = useNameBackground(detail.take.id);
  const forget = useForgetWhoseMotion(detail.take.id);
  const { notify, fail } = useNotices();
  const { across, down } = shapeOf(clip);
  const toggle = (cell: number) =>
    setChosen((now) => {
      const next = new Set(now);
      if (!next.delete(cell)) next.add(cell);
      return next;
    });
  const step = (event: KeyboardEvent<HTMLButtonElement>, from: number) => {
    const to = moved(event.key, from, across, down);
    if (to === null) return;
    event.preventDefault();
    event.stopPropagation();
    const cell = event.currentTarget.parentElement?.children[to];
    if (cell instanceof HTMLElement) cell.focus();
  };
  const done = () =>
    name.mutate([...chosen], {
      onSuccess: (found) => {
        const again = found.take.state === "queued";
        notify({
          text: again ? "Measured again by what you named." : "Judged by what you named.",
          undo: () => forget.mutate(undefined, { onError: fail }),
        });
        onClose();
      },
      onError: fail,
    });
  return (
    <>
      <div
        role="group"
        aria-label="Where you see the background"
        className="absolute inset-0 grid"
        style={{ gridTemplate: `repeat(${down}, 1fr) / repeat(${across}, 1fr)` }}
      >
        {Array.from({ length: CELLS }, (_, cell) => (
          <button
            key={cell}
            type="button"
            aria-pressed={chosen.has(cell)}
            aria-label={nameOf(cell, across)}
            className={`border border-white/50 ${chosen.has(cell) ? "bg-lamp/60" : "bg-black/20 hover:bg-black/5"}`}
            onClick={() => toggle(cell)}
            onKeyDown={(event) => step(event, cell)}
          >
            {chosen.has(cell) && <span aria-hidden="true">✓</span>}
          </button>
        ))}
      </div>
      <div className="absolute inset-x-2 bottom-2 flex flex-wrap items-center gap-2 rounded bg-paper px-3 py-1.5 text-note">
        <span className="mr-auto">Touch the places where you see nothing but background.</span>
        <Button look="bare" onClick={onClose}>
          Cancel
        </Button>
        <Button disabled={chosen.size === 0 || name.isPending} onClick={done}>
          Judge by these
        </Button>
      </div>
    </>
  );
}
