import { Pencil, Trash2 } from "lucide-react";
import { Link } from "react-router";
import type { TakeDetail } from "../../../api/client";
import * as format from "../../../formats";
import { Button } from "../../../ui/Button";
import { Key } from "../../../keys/Key";
import { CHOICE_WORDS } from "../compare/words";

/** What stands for the codec of a take that is a motion log alone. */
const LOG_CODEC = "motion log";

const ORIGIN_WORDS = {
  own: "",
  simulated: " · simulated, not a recording",
  example: " · an example, no take of yours",
} as const;

type Props = { detail: TakeDetail; onDelete: () => void; onName: () => void };

/** Name, facts of the file, and the way to its neighbours. */
export function TakeHead({ detail, onDelete, onName }: Props) {
  const { take, clip, brief } = detail;
  const taken = format.when(take.recorded_at ?? take.imported_at);
  return (
    <header className="flex flex-wrap items-baseline gap-x-4 gap-y-1 px-4 pt-4 pb-2.5 sm:px-8">
      <h1 className="title text-title leading-tight">
        {take.name}
        <Button look="bare" onClick={onName} aria-label="Rename this take" className="px-2! py-0!">
          <Pencil size={14} aria-hidden />
        </Button>
      </h1>
      <p className="text-stone">
        {clip && (
          <>
            <b className="font-semibold text-ink">{format.millimetres(detail.focal_eq_mm)}</b>{" "}
            equivalent ·{" "}
            {clip.codec === LOG_CODEC ? (
              `motion log, ${clip.fps.toFixed(0)} samples a second · `
            ) : (
              <>
                <b className="font-semibold text-ink">
                  {clip.variable_rate ? "about " : ""}
                  {format.rate(clip.fps)}
                </b>{" "}
                for {format.rate(brief.delivery_fps)} · {clip.width}×{clip.height} ·{" "}
              </>
            )}
            {format.seconds(clip.duration_s)} ·{" "}
          </>
        )}
        {taken.day}
        {ORIGIN_WORDS[take.origin]}
        {take.choice && ` · ${CHOICE_WORDS[take.choice].toLowerCase()}`}
        {detail.cleared && " · original cleared"}
        {detail.away && " · original on the second disk, not here now"}
      </p>
      <nav
        aria-label="Neighbouring takes"
        className="ml-auto flex items-center gap-3 text-note text-stone"
      >
        <Neighbour id={detail.before_id} keys="↑" words="earlier take" />
        <Neighbour id={detail.after_id} keys="↓" words="later" />
        <Button look="bare" onClick={onDelete} aria-label="Delete this take" className="px-1!">
          <Trash2 size={15} aria-hidden />
        </Button>
      </nav>
    </header>
  );
}

function Neighbour({ id, keys, words }: { id: number | null; keys: string; words: string }) {
  if (id === null) return null;
  return (
    <Link to={`/takes/${id}`} className="inline-flex items-center gap-1.5 hover:text-ink">
      <Key>{keys}</Key> {words}
    </Link>
  );
}
