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
import { ExplainedError, UNREACHABLE } from "../../../api/client";
import { sendFilm } from "../../../api/uploads";
import { useChanged } from "../../../api/keys";
import { useNotices } from "../../../ui/notices";

const AT_ONCE = 2;

export type Arrival = {
  key: number;
  file: File;
  state: "waiting" | "sending" | "failed";
  progress: number;
  error: ExplainedError | null;
};

type Imports = {
  arrivals: Arrival[];
  add: (files: Iterable<File>) => void;
  drop: (key: number) => void;
  again: (key: number) => void;
};

const Context = createContext<Imports | null>(null);

/** A file of this name is a table: a motion log. */
const LOG_NAME = /\.(csv|tsv|txt)$/i;

const LogDialog = lazy(() =>
  import("../log/LogDialog").then((room) => ({ default: room.LogDialog })),
);

/** Files on their way into the library, a few at a time, each with progress and cancel. */
export function ImportProvider({ children }: { children: ReactNode }) {
  const [arrivals, setArrivals] = useState<Arrival[]>([]);
  const [logs, setLogs] = useState<{ key: number; file: File }[]>([]);
  const aborts = useRef(new Map<number, AbortController>());
  const next = useRef(1);
  const changed = useChanged();
  const { notify } = useNotices();

  const change = useCallback(
    (key: number, part: Partial<Arrival>) =>
      setArrivals((all) => all.map((one) => (one.key === key ? { ...one, ...part } : one))),
    [],
  );
  const drop = useCallback((key: number) => {
    aborts.current.get(key)?.abort();
    aborts.current.delete(key);
    setArrivals((all) => all.filter((one) => one.key !== key));
  }, []);
  const again = useCallback(
    (key: number) => {
      aborts.current.delete(key);
      change(key, { state: "waiting", progress: 0, error: null });
    },
    [change],
  );
  const add = useCallback((files: Iterable<File>) => {
    const all = Array.from(files);
    const tables = all.filter((file) => LOG_NAME.test(file.name));
    const named = tables.map((file) => ({ key: next.current++, file }));
    setLogs((before) => [...before, ...named]);
    const films = all.filter((file) => !LOG_NAME.test(file.name));
    const fresh = films.map((file) => ({
      key: next.current++,
      file,
      state: "waiting" as const,
      progress: 0,
      error: null,
    }));
    setArrivals((all) => [...all, ...fresh]);
  }, []);

  useEffect(() => {
    const sending = arrivals.filter((one) => one.state === "sending").length;
    const waiting = arrivals.filter((one) => one.state === "waiting");
    for (const one of waiting.slice(0, AT_ONCE - sending)) {
      if (aborts.current.has(one.key)) continue;
      const abort = new AbortController();
      aborts.current.set(one.key, abort);
      change(one.key, { state: "sending" });
      sendFilm(one.file, (progress) => change(one.key, { progress }), abort.signal)
        .then((answer) => {
          drop(one.key);
          changed("films");
          if (answer.duplicate) {
            notify({
              text: `“${one.file.name}” is here already.`,
              hint: `It is the take “${answer.take.name}”.`,
            });
          }
        })
        .catch((error: unknown) => {
          if (abort.signal.aborted) return;
          const known = error instanceof ExplainedError ? error : new ExplainedError(UNREACHABLE);
          change(one.key, { state: "failed", error: known });
        });
    }
  }, [arrivals, changed, change, drop, notify]);

  const value = useMemo(() => ({ arrivals, add, drop, again }), [arrivals, add, drop, again]);
  return (
    <Context value={value}>
      {children}
      <Suspense>
        {logs[0] && (
          <LogDialog
            key={logs[0].key}
            file={logs[0].file}
            onClose={() => setLogs((before) => before.slice(1))}
          />
        )}
      </Suspense>
    </Context>
  );
}

export function useImports(): Imports {
  const imports = useContext(Context);
  if (!imports) throw new Error("useImports needs an ImportProvider");
  return imports;
}
