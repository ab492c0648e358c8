import { useEffect, useRef } from "react";
import {
  isUnderWay,
  useSeenCopy,
  useStopCopy,
  useToldCopies,
  type FolderCopy,
} from "../../../api/folders";
import { useChanged } from "../../../api/keys";
import { useStatus } from "../../../api/takes";
import { Button } from "../../../ui/Button";
import { Progress } from "../../../ui/Progress";

/** Copies from folders that go on, though the dialog that asked for them is closed, and what those
 * that have ended could not bring in. */
export function useFolderCopies(): FolderCopy[] {
  const here = useStatus().data?.phone === null; // a phone sees none of this computer's folders
  const copies = useToldCopies(here).data?.copies;
  useShowWhatCame(copies);
  return copies ?? [];
}

/** One of them: how far it is, or what was left out. */
export function FolderCopyLine({ copy }: { copy: FolderCopy }) {
  return isUnderWay(copy) ? <UnderWay copy={copy} /> : <LeftOut copy={copy} />;
}

function UnderWay({ copy }: { copy: FolderCopy }) {
  const { mutate: stop } = useStopCopy();
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-line px-4 py-2 sm:flex-nowrap sm:px-8">
      <span className="w-full min-w-0 truncate font-medium sm:w-auto sm:flex-1">{copy.root}</span>
      <span className="text-note text-stone">{`Film ${Math.min(copy.settled + 1, copy.films)} of ${copy.films}`}</span>
      <span className="w-48 flex-1 sm:flex-none">
        <Progress value={copy.progress} label={`Bringing films in from ${copy.root}`} />
      </span>
      <Button onClick={() => stop(copy.id)}>Stop copying</Button>
    </li>
  );
}

function LeftOut({ copy }: { copy: FolderCopy }) {
  const { mutate: see } = useSeenCopy();
  const early = copy.state === "failed";
  const missing = copy.refused.length + (early ? copy.films - copy.settled : 0);
  return (
    <li
      role="alert"
      className="flex flex-wrap items-start gap-x-4 gap-y-1 border-t border-line px-4 py-2 sm:flex-nowrap sm:px-8"
    >
      <div className="min-w-0 flex-1">
        <p>
          <b>
            {missing} of {copy.films} {copy.films === 1 ? "film" : "films"} not brought in from{" "}
            {copy.root}.
          </b>
        </p>
        <ul className="max-h-40 overflow-auto text-note text-ember-deep">
          {copy.refused.map((film) => (
            <li key={film.file}>
              {film.file}: {film.what} {film.next_step}
            </li>
          ))}
        </ul>
        {early && (
          <p className="text-note text-ember-deep">Copying ended early. Bring the rest in again.</p>
        )}
      </div>
      <Button onClick={() => see(copy.id)}>Seen</Button>
    </li>
  );
}

/** Lets the list of takes show what a copy has brought in. */
function useShowWhatCame(copies: FolderCopy[] | undefined): void {
  const before = useRef(new Map<number, number>());
  const changed = useChanged();
  useEffect(() => {
    if (!copies) return;
    const now = new Map(copies.map((copy) => [copy.id, copy.settled]));
    const more = copies.some((copy) => copy.settled > (before.current.get(copy.id) ?? 0));
    const ended = [...before.current.keys()].some((id) => !now.has(id));
    before.current = now;
    if (more || ended) changed("films");
  }, [copies, changed]);
}
