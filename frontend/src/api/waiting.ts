import { PAGE } from "./page";

/** page: the opening of the page that keeps it, whose own it is to send until it is gone. */
type Kept<T> = { change: T; page: string };

/** Changes that a page keeps in the browser until they have been sent, for each thing by its id. */
export function waitingStore<T>(prefix: string) {
  const keyOf = (id: number) => `${prefix}-${id}`;

  function read(id: number): Kept<T>[] {
    try {
      const kept: unknown = JSON.parse(localStorage.getItem(keyOf(id)) ?? "[]");
      return Array.isArray(kept) ? (kept as Kept<T>[]).filter((one) => "change" in one) : [];
    } catch {
      return [];
    }
  }

  function write(id: number, kept: Kept<T>[]) {
    try {
      if (kept.length === 0) localStorage.removeItem(keyOf(id));
      else localStorage.setItem(keyOf(id), JSON.stringify(kept));
    } catch {
      // A browser without room keeps nothing for later; the change is sent all the same.
    }
  }

  return {
    /** Keep a change until it has been sent. */
    keep(id: number, change: T) {
      write(id, [...read(id), { change, page: PAGE }]);
    },
    /** A change was sent, or refused. */
    drop(id: number, change: T) {
      const kept = read(id);
      const text = JSON.stringify(change);
      const at = kept.findIndex((one) => one.page === PAGE && JSON.stringify(one.change) === text);
      if (at >= 0) write(id, kept.toSpliced(at, 1));
    },
    /** Changes that an earlier opening of the page left, taken out to be sent now. */
    takeLeft(id: number): T[] {
      const kept = read(id);
      write(
        id,
        kept.filter((one) => one.page === PAGE),
      );
      return kept.filter((one) => one.page !== PAGE).map((one) => one.change);
    },
  };
}
