import { useRef, useState } from "react";
import { Link } from "react-router";
import { useSessionChange, type SessionDetail, type TakeNote } from "../../api/practice";
import { useNotices } from "../../ui/notices";
import * as format from "../../formats";
import { readNotes } from "./alone/notes";

const LOOK = "text-note font-semibold underline";

type Props = { detail: SessionDetail; open: boolean };

/** The session on paper, on another screen, or in a file, while there is something left to film; and
 * its notes brought back from one. */
export function SessionFiles({ detail, open }: Props) {
  const { id } = detail.session;
  const { mutateAsync } = useSessionChange(id);
  const { notify, fail } = useNotices();
  const [fault, setFault] = useState("");
  const file = useRef<HTMLInputElement>(null);
  const bring = async (chosen: File | undefined) => {
    if (!chosen) return;
    try {
      const notes = readNotes(await chosen.text(), id).filter(
        ({ position }) => position < detail.session.takes.length,
      );
      const before = notes.map(({ position }) => detail.session.takes[position]);
      const put = (some: { position: number; note: TakeNote }[]) =>
        Promise.all(some.map(({ position, note }) => mutateAsync({ act: "note", position, note })));
      setFault("");
      try {
        await put(notes.map(({ position, ...note }) => ({ position, note })));
      } catch (error) {
        return fail(error);
      }
      notify({
        text: `Notes of ${format.takes(notes.length)} are back.`,
        undo: () => {
          const again = before.flatMap((take) => {
            if (!take) return [];
            const { position, state, felt, wind, fatigue, tension } = take;
            return [{ position, note: { state, felt, wind, fatigue, tension } as TakeNote }];
          });
          void put(again).catch(fail);
        },
      });
    } catch (error) {
      setFault(error instanceof Error ? error.message : "This file could not be read.");
    }
  };
  return (
    <div className="flex flex-wrap gap-x-5 gap-y-1 px-4 pt-3 sm:px-8">
      {open && (
        <>
          <Link to={`/practice/${id}/sheet`} className={LOOK}>
            On paper: each drill drawn, with room for notes
          </Link>
          <Link to={`/practice/${id}/slates`} className={LOOK}>
            Slates over the whole screen
          </Link>
          <a href={`/api/sessions/${id}/alone.html`} className={LOOK}>
            In one file that runs without this computer
          </a>
        </>
      )}
      <input
        ref={file}
        type="file"
        accept="application/json,.json"
        aria-label="File of notes"
        className="sr-only"
        onChange={(event) => {
          void bring(event.target.files?.[0]);
          event.target.value = "";
        }}
      />
      <button type="button" className={LOOK} onClick={() => file.current?.click()}>
        Bring its notes back
      </button>
      {fault && (
        <p role="alert" className="basis-full border-l-4 border-ember px-3">
          {fault} Choose the file that it saved.
        </p>
      )}
    </div>
  );
}
