import {
  createContext,
  lazy,
  Suspense,
  useCallback,
  useContext,
  useMemo,
  useRef,
  useState,
  type ReactNode,
} from "react";
import { ExplainedError } from "../api/client";

export type Notice = {
  id: number;
  text: string;
  hint?: string | undefined;
  fault?: boolean;
  undo?: () => void;
};
type Deed = { id: number; text: string; undo: () => void };
type Notify = (notice: Omit<Notice, "id">) => void;
type Notices = {
  notify: Notify;
  fail: (error: unknown) => void;
  /** Say what was done once it is, or why it is not; it can be undone from now on, after the answer. */
  tell: (work: Promise<unknown>, deed: { text: string; undo?: () => void }) => void;
  undoLast: () => void;
};

/** Deeds that can still be undone, whether they are shown or not. */
const MOST_KEPT = 30;

const Context = createContext<Notices | null>(null);
/** Nothing is to be said at first, so that what shows it is loaded when something is. */
const NoticeList = lazy(() =>
  import("./NoticeList").then((room) => ({ default: room.NoticeList })),
);

/** Short notices at the foot of the page; a deed that can be undone brings its undo. */
export function NoticeProvider({ children }: { children: ReactNode }) {
  const [notices, setNotices] = useState<Notice[]>([]);
  const next = useRef(1);
  // What can be undone outlives the notice that told of it, which goes after some seconds.
  const deeds = useRef<Deed[]>([]);
  const shown = useRef(new Set<number>());
  const drop = useCallback((id: number) => {
    shown.current.delete(id);
    setNotices((all) => all.filter((n) => n.id !== id));
  }, []);
  const notify = useCallback<Notify>((notice) => {
    const id = next.current++;
    const { undo } = notice;
    const told: Notice = { ...notice, id };
    if (undo) {
      // Once, whether by the notice or by its key, and at once: a key pressed three times quickly
      // undoes three deeds.
      told.undo = () => {
        const waits = deeds.current.some((deed) => deed.id === id);
        deeds.current = deeds.current.filter((deed) => deed.id !== id);
        if (waits) undo();
      };
      deeds.current = [...deeds.current, { id, text: notice.text, undo: told.undo }].slice(
        -MOST_KEPT,
      );
    }
    shown.current.add(id);
    shown.current.delete(id - MOST_KEPT);
    setNotices((all) => [...all, told].slice(-MOST_KEPT));
  }, []);
  const fail = useCallback(
    (error: unknown) => {
      const known = error instanceof ExplainedError;
      notify({
        text: known ? error.message : "That did not work.",
        hint: known ? error.hint : "Reload the page and try again.",
        fault: true,
      });
    },
    [notify],
  );
  const tell = useCallback<Notices["tell"]>(
    (work, { text, undo }) => {
      const waiting: Deed = { id: next.current++, text, undo: () => undefined };
      let undone = false;
      if (undo) {
        waiting.undo = () => {
          undone = true;
          deeds.current = deeds.current.filter((deed) => deed !== waiting);
          void work.then(undo, () => undefined);
        };
        deeds.current = [...deeds.current, waiting].slice(-MOST_KEPT);
      }
      void work.then(
        () => {
          if (undone) return;
          const place = deeds.current.indexOf(waiting);
          notify({ text, ...(undo && { undo }) });
          // In its own place among what was done meanwhile.
          const told = deeds.current.at(-1);
          if (undo && told && place >= 0)
            deeds.current = deeds.current.slice(0, -1).with(place, told);
        },
        (error: unknown) => {
          deeds.current = deeds.current.filter((deed) => deed !== waiting);
          fail(error);
        },
      );
    },
    [notify, fail],
  );
  const undoLast = useCallback(() => {
    const last = deeds.current.at(-1);
    if (!last) return;
    last.undo();
    // Nobody sees any more what it was: it is said.
    if (!shown.current.has(last.id)) notify({ text: `Undone: ${last.text}` });
    drop(last.id);
  }, [drop, notify]);
  const value = useMemo(() => ({ notify, fail, tell, undoLast }), [notify, fail, tell, undoLast]);
  return (
    <Context value={value}>
      {children}
      <Suspense>{notices.length > 0 && <NoticeList notices={notices} onDrop={drop} />}</Suspense>
    </Context>
  );
}

export function useNotices(): Notices {
  const notices = useContext(Context);
  if (!notices) throw new Error("useNotices needs a NoticeProvider");
  return notices;
}
