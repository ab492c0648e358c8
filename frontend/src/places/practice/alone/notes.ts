import type { SessionTake, TakeNote } from "../../../api/practice";

/** What a session that ran by itself gives back: a file, read by the session's page. */
export type NotesFile = {
  ridgewind_notes: 1;
  session_id: number;
  notes: ({ position: number } & TakeNote)[];
};

/** The notes of the takes of which something became. */
export function notesOf(session_id: number, takes: readonly SessionTake[]): NotesFile {
  return {
    ridgewind_notes: 1,
    session_id,
    notes: takes
      .filter((take) => take.state !== "planned")
      .map(({ position, state, filmed_at, felt, wind, fatigue, tension }) => ({
        position,
        state: state as NonNullable<TakeNote["state"]>,
        ...(filmed_at !== null && { filmed_at }),
        felt: felt as TakeNote["felt"] & string,
        wind,
        fatigue,
        tension,
      })),
  };
}

/** Notes of this session from a file's text. Fails with what is wrong, as a sentence. */
export function readNotes(text: string, session_id: number): NotesFile["notes"] {
  let file: Partial<NotesFile>;
  try {
    file = JSON.parse(text) as Partial<NotesFile>;
  } catch {
    throw new Error("This is no file of notes.");
  }
  if (file?.ridgewind_notes !== 1 || !Array.isArray(file.notes)) {
    throw new Error("This is no file of notes.");
  }
  if (file.session_id !== session_id) throw new Error("These notes are another session’s.");
  return file.notes;
}
