import { useEffect, useRef } from "react";
import { folderCopy, useCopiesUnderWay, useStopCopy, type FolderCopy } from "../../../api/folders";
import { useChanged } from "../../../api/keys";
import { useStatus } from "../../../api/takes";
import { Button } from "../../../ui/Button";
import { useNotices } from "../../../ui/notices";
import { Progress } from "../../../ui/Progress";

/** Copies from folders that go on, though the dialog that asked for them is closed. */
export function useFolderCopies(): FolderCopy[] {
  const here = useStatus().data?.phone === null; // a phone sees none of this computer's folders
  const copies = useCopiesUnderWay(here).data?.copies;
  useTellEnded(copies);
  return copies ?? [];
}

/** One of them, with a way to stop it. */
export function FolderCopyLine({ copy }: { copy: FolderCopy }) {
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

/** Says what could not be brought in by a copy that has ended, and shows what came. */
function useTellEnded(copies: FolderCopy[] | undefined): void {
  const before = useRef(new Map<number, number>());
  const changed = useChanged();
  const { notify } = useNotices();
  useEffect(() => {
    if (!copies) return;
    const now = new Map(copies.map((copy) => [copy.id, copy.settled]));
    const more = copies.some((copy) => copy.settled > (before.current.get(copy.id) ?? 0));
    const ended = [...before.current.keys()].filter((id) => !now.has(id));
    before.current = now;
    if (more || ended.length > 0) changed("films");
    for (const id of ended) {
      folderCopy(id).then(
        ({ refused, root }) => {
          const [first] = refused;
          if (!first) return;
          const more = refused.length > 1 ? ` So were ${refused.length - 1} more.` : "";
          notify({
            text: `${first.file} of ${root} was not brought in.${more}`,
            hint: `${first.what} ${first.next_step}`,
            fault: true,
          });
        },
        () => undefined,
      );
    }
  }, [copies, changed, notify]);
}
