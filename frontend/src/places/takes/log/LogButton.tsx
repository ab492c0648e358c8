import { lazy, Suspense, useRef, useState } from "react";
import { Button } from "../../../ui/Button";

const LogDialog = lazy(() => import("./LogDialog").then((room) => ({ default: room.LogDialog })));

type Props = { take?: { id: number; focal: number }; words: string };

/** Chooses a motion log and opens it. */
export function LogButton({ take, words }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<File | null>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        accept=".csv,.txt,.tsv,text/csv"
        aria-label="File of a motion log"
        tabIndex={-1}
        className="sr-only"
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          event.target.value = "";
          if (chosen) setFile(chosen);
        }}
      />
      <Button onClick={() => input.current?.click()}>{words}</Button>
      <Suspense>
        {file && (
          <LogDialog file={file} onClose={() => setFile(null)} {...(take ? { take } : {})} />
        )}
      </Suspense>
    </>
  );
}
