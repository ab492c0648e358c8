import {
  createContext,
  lazy,
  Suspense,
  useCallback,
  useContext,
  useEffect,
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
type Notify = (notice: Omit<Notice, "id">) => void;
type Notices = { notify: Notify; fail: (error: unknown) => void; undoLast: () => void };

/** Deeds that can still be undone, although only the newest few are shown. */
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
  const drop = useCallback((id: number) => setNotices((all) => all.filter((n) => n.id !== id)), []);
  const notify = useCallback<Notify>((notice) => {
    const id = next.current++;
    setNotices((all) => [...all, { ...notice, id }].slice(-MOST_KEPT));
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
  const latest = useRef(notices);
  useEffect(() => {
    latest.current = notices;
  }, [notices]);
  const undoLast = useCallback(() => {
    const last = latest.current.findLast((notice) => notice.undo);
    if (!last) return;
    // At once, so that pressing it three times quickly undoes three deeds.
    latest.current = latest.current.filter((notice) => notice !== last);
    last.undo?.();
    drop(last.id);
  }, [drop]);
  const value = useMemo(() => ({ notify, fail, undoLast }), [notify, fail, undoLast]);
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
