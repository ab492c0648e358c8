import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { client, dataOf, ExplainedError } from "../../api/client";

const LOOK_MS = 400;

/** Where a copy of several files is. share: of the file that is being copied, 0 to 1. */
export type CopyState = { count: number; all: number; share: number; refused: string[] };

/** Brings files of a folder in, one after the other; can be stopped within a file. */
export function useFolderCopy() {
  const cache = useQueryClient();
  const [state, setState] = useState<CopyState | null>(null);
  const [busy, setBusy] = useState(false);
  const stopped = useRef(false);
  const ticket = useRef("");
  useEffect(() => {
    if (!busy) return;
    const timer = setInterval(() => {
      const asked = ticket.current;
      void dataOf(
        client.GET("/api/folders/copies/{ticket}", { params: { path: { ticket: asked } } }),
      )
        .then(({ share }) => {
          if (asked === ticket.current && share !== null) {
            setState((now) => now && { ...now, share });
          }
        })
        .catch(() => undefined); // the copy itself says what is wrong
    }, LOOK_MS);
    return () => clearInterval(timer);
  }, [busy]);

  /** True where every file was brought in. */
  const bring = async (root: string, files: string[]): Promise<boolean> => {
    stopped.current = false;
    setBusy(true);
    const refused: string[] = [];
    let count = 0;
    for (const file of files) {
      ticket.current = crypto.randomUUID();
      setState({ count, all: files.length, share: 0, refused });
      try {
        const body = { path: root, file, ticket: ticket.current };
        await dataOf(client.POST("/api/folders/bring", { body }));
      } catch (error) {
        const said = error instanceof ExplainedError ? `${error.message} ${error.hint}` : "";
        if (!wasStopped()) refused.push(`${file}: ${said}`);
      }
      void cache.invalidateQueries({ queryKey: ["takes"] });
      if (wasStopped()) break;
      count += 1;
    }
    setState({ count, all: files.length, share: 0, refused: [...refused] });
    setBusy(false);
    return refused.length === 0 && !wasStopped();
  };
  const wasStopped = () => stopped.current;
  const stop = () => {
    stopped.current = true;
    const params = { path: { ticket: ticket.current } };
    void dataOf(client.DELETE("/api/folders/copies/{ticket}", { params })).catch(() => undefined);
  };
  return { state, busy, bring, stop, forget: () => setState(null) };
}
