import { Toast } from "radix-ui";
import {
  createContext,
  useCallback,
  useContext,
  useMemo,
  useRef,
  useState,
  type ReactNode,
} from "react";
import { ExplainedError } from "../api/client";
import { Key } from "./Key";

type Notice = {
  id: number;
  text: string;
  hint?: string | undefined;
  fault?: boolean;
  undo?: () => void;
};
type Say = (notice: Omit<Notice, "id">) => void;
type Notices = { say: Say; fail: (error: unknown) => void; undoLast: () => void };

const Context = createContext<Notices | null>(null);
const SHOWN_MS = 10_000;

/** Short notices at the foot of the page; a deed that can be undone brings its undo. */
export function NoticeProvider({ children }: { children: ReactNode }) {
  const [notices, setNotices] = useState<Notice[]>([]);
  const next = useRef(1);
  const drop = useCallback((id: number) => setNotices((all) => all.filter((n) => n.id !== id)), []);
  const say = useCallback<Say>((notice) => {
    const id = next.current++;
    setNotices((all) => [...all.slice(-2), { ...notice, id }]);
  }, []);
  const fail = useCallback(
    (error: unknown) => {
      const known = error instanceof ExplainedError;
      say({
        text: known ? error.message : "That did not work.",
        hint: known ? error.hint : "Reload the page and try again.",
        fault: true,
      });
    },
    [say],
  );
  const undoLast = useCallback(() => {
    const last = notices.findLast((notice) => notice.undo);
    if (!last) return;
    last.undo?.();
    drop(last.id);
  }, [notices, drop]);
  const value = useMemo(() => ({ say, fail, undoLast }), [say, fail, undoLast]);
  return (
    <Context value={value}>
      <Toast.Provider duration={SHOWN_MS} label="Notice">
        {children}
        {notices.map((notice) => (
          <Toast.Root
            key={notice.id}
            onOpenChange={(open) => !open && drop(notice.id)}
            className={`rounded flex items-center gap-4 border-l-4 bg-ink px-4 py-3 text-paper shadow-lg ${notice.fault ? "border-ember" : "border-lamp"}`}
          >
            <Toast.Description className="text-note">
              <span className="font-semibold">{notice.text}</span>
              {notice.hint && <span className="block opacity-85">{notice.hint}</span>}
            </Toast.Description>
            {notice.undo && (
              <Toast.Action
                altText="Undo with the key Z"
                onClick={notice.undo}
                className="rounded inline-flex items-center gap-2 border border-current px-2.5 py-1 text-note font-semibold"
              >
                Undo <Key>Z</Key>
              </Toast.Action>
            )}
          </Toast.Root>
        ))}
        <Toast.Viewport className="fixed right-4 bottom-4 left-4 z-50 flex flex-col gap-2 sm:left-auto sm:w-[400px]" />
      </Toast.Provider>
    </Context>
  );
}

export function useNotices(): Notices {
  const notices = useContext(Context);
  if (!notices) throw new Error("useNotices needs a NoticeProvider");
  return notices;
}
