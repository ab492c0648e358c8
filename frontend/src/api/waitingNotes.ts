import { PAGE } from "./page";
import type { NoteChange } from "./practice";

/** page: the opening of the page that keeps it, whose own it is to send until it is gone. */
type Kept = NoteChange & { page: string };

const keyOf = (id: number) => `ridgewind-notes-${id}`;

function read(id: number): Kept[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(keyOf(id)) ?? "[]");
    return Array.isArray(kept) ? (kept as Kept[]) : [];
  } catch {
    return [];
  }
}

function write(id: number, kept: Kept[]) {
  if (kept.length === 0) localStorage.removeItem(keyOf(id));
  else localStorage.setItem(keyOf(id), JSON.stringify(kept));
}

const same = (a: NoteChange, b: NoteChange) =>
  a.position === b.position && JSON.stringify(a.note) === JSON.stringify(b.note);

/** Keep a note of a session in the browser until it has been sent. */
export function keepWaiting(id: number, change: NoteChange) {
  const { act, position, note } = change;
  write(id, [...read(id), { act, position, note, page: PAGE }]);
}

/** A note was sent, or refused. */
export function dropWaiting(id: number, change: NoteChange) {
  const kept = read(id);
  const at = kept.findIndex((one) => one.page === PAGE && same(one, change));
  if (at >= 0) write(id, kept.toSpliced(at, 1));
}

/** Notes that an earlier opening of the page left, taken out to be sent now. */
export function takeLeft(id: number): NoteChange[] {
  const kept = read(id);
  write(
    id,
    kept.filter((one) => one.page === PAGE),
  );
  return kept
    .filter((one) => one.page !== PAGE)
    .map(({ act, position, note }) => ({ act, position, note }));
}
