import { useState, type KeyboardEvent } from "react";
import type { ClipFacts, TakeDetail } from "../../../api/client";
import { useNameBackground } from "../../../api/points";
import { useForgetWhoseMotion } from "../../../api/takes";
import { each } from "../../../api/each";
import { Button } from "../../../ui/Button";
import { useNotices } from "../../../ui/notices";
import { CELLS, moved, nameOf, shapeOf } from "./cells";

/** Which cells of the picture the shooter has touched, and what becomes of them. */
export function useBackgroundPicker(detail: TakeDetail, onClose: () => void) {
  const [chosen, setChosen] = useState<ReadonlySet<number>>(() => new Set(detail.background));
  const name = useNameBackground(detail.take.id);
  const forget = useForgetWhoseMotion(detail.take.id);
  const { notify, fail } = useNotices();
  const toggle = (cell: number) =>
    setChosen((now) => {
      const next = new Set(now);
      if (!next.delete(cell)) next.add(cell);
      return next;
    });
  const done = () =>
    each(name, [...chosen], {
      onSuccess: (found) => {
        const again = found.take.state === "queued";
        notify({
          text: again ? "Measured again by what you named." : "Judged by what you named.",
          undo: () => each(forget, undefined, { onError: fail }),
        });
        onClose();
      },
      onError: fail,
    });
  return { chosen, toggle, done, busy: name.isPending, cancel: onClose };
}

type Picker = ReturnType<typeof useBackgroundPicker>;

/** Over the picture: cells to touch where the background is seen. */
export function BackgroundCells({ clip, picker }: { clip: ClipFacts; picker: Picker }) {
  const { across, down } = shapeOf(clip);
  const step = (event: KeyboardEvent<HTMLButtonElement>, from: number) => {
    const to = moved(event.key, from, across, down);
    if (to === null) return;
    event.preventDefault();
    event.stopPropagation();
    const cell = event.currentTarget.parentElement?.children[to];
    if (cell instanceof HTMLElement) cell.focus();
  };
  return (
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
          aria-pressed={picker.chosen.has(cell)}
          aria-label={nameOf(cell, across)}
          className={`border border-white/50 ${picker.chosen.has(cell) ? "bg-lamp/60" : "bg-black/20 hover:bg-black/5"}`}
          onClick={() => picker.toggle(cell)}
          onKeyDown={(event) => step(event, cell)}
        >
          {picker.chosen.has(cell) && <span aria-hidden="true">✓</span>}
        </button>
      ))}
    </div>
  );
}

/** Under the picture: what to do with the cells, and the way out. */
export function BackgroundBar({ picker }: { picker: Picker }) {
  return (
    <div className="flex flex-wrap items-center gap-2 pt-1.5 text-note">
      <span className="mr-auto">Touch the places where you see nothing but background.</span>
      <Button look="bare" onClick={picker.cancel}>
        Cancel
      </Button>
      <Button disabled={picker.chosen.size === 0 || picker.busy} onClick={picker.done}>
        Judge by these
      </Button>
    </div>
  );
}
