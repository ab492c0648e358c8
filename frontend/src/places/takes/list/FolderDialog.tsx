import { kept } from "../../../api/browserStore";
import { useEffect, useState, type FormEvent } from "react";
import { ExplainedError } from "../../../api/client";
import { scanFolder, type FolderScan } from "../../../api/folders";
import * as format from "../../../formats";
import { Button } from "../../../ui/Button";
import { Dialog } from "../../../ui/Dialog";
import { Progress } from "../../../ui/Progress";
import { TextField } from "../../../ui/TextField";
import { useAskedCopy } from "./useFolderCopy";

const KEY = "ridgewind-folder";

/** Films of a folder or card on this computer: only what is new, one after the other. */
export function FolderDialog({ onClose }: { onClose: () => void }) {
  return (
    <Dialog title="From a folder or card" open onClose={onClose} wide>
      <Folder onClose={onClose} />
    </Dialog>
  );
}

function Folder({ onClose }: { onClose: () => void }) {
  const [path, setPath] = useState(() => kept.get(KEY) ?? "");
  const [scan, setScan] = useState<FolderScan | null>(null);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [fault, setFault] = useState<ExplainedError | null>(null);
  const asked = useAskedCopy();
  const { copy: state, busy } = asked;
  const explain = (error: unknown) =>
    setFault(error instanceof ExplainedError ? error : new ExplainedError({ message: "That did not work.", hint: "Try again." })); // prettier-ignore
  const look = (event: FormEvent) => {
    event.preventDefault();
    setFault(null);
    asked.forget();
    scanFolder(path)
      .then((found) => {
        kept.set(KEY, path);
        setScan(found);
        setChosen(new Set(found.films.filter((film) => !film.known).map((film) => film.file)));
      })
      .catch((error: unknown) => (setScan(null), explain(error)));
  };
  const bring = () => {
    if (!scan) return;
    const files = scan.films.map((film) => film.file).filter((file) => chosen.has(file));
    asked.begin({ path: scan.root, files }, explain);
  };
  const whole = state?.state === "done" && state.refused.length === 0;
  useEffect(() => {
    if (whole) onClose();
  }, [whole, onClose]);
  return (
    <div className="space-y-4">
      <form onSubmit={look} className="flex items-end gap-3">
        <div className="flex-1">
          <TextField
            label="Folder on this computer"
            value={path}
            onChange={setPath}
            hint="The card’s own folder will do; everything below it is looked through."
          />
        </div>
        <Button type="submit" className="mb-5" disabled={!path.trim() || busy}>
          Look
        </Button>
      </form>
      {fault && (
        <p role="alert" className="border-l-4 border-ember pl-3">
          <b>{fault.message}</b> {fault.hint}
        </p>
      )}
      {scan && <Films scan={scan} chosen={chosen} onChange={setChosen} />}
      {state && (
        <div className="space-y-1">
          <Progress value={state.progress} label="Bringing films in" />
          <p className="text-note text-stone" aria-live="polite">
            {busy
              ? `Film ${Math.min(state.settled + 1, state.films)} of ${state.films}. It goes on when you close this: the list shows it.`
              : `${state.brought_in} of ${state.films} brought in`}
          </p>
          {state.refused.map((film) => (
            <p key={film.file} role="alert" className="text-note text-ember-deep">
              {film.file}: {film.what} {film.next_step}
            </p>
          ))}
        </div>
      )}
      {scan && scan.films.length > 0 && (
        <div className="flex gap-3">
          <Button look="main" disabled={chosen.size === 0 || busy} onClick={bring}>
            Bring {chosen.size} in
          </Button>
          {busy && <Button onClick={asked.stop}>Stop copying</Button>}
        </div>
      )}
    </div>
  );
}

type FilmsProps = {
  scan: FolderScan;
  chosen: ReadonlySet<string>;
  onChange: (chosen: ReadonlySet<string>) => void;
};

function Films({ scan, chosen, onChange }: FilmsProps) {
  const fresh = scan.films.filter((film) => !film.known).length;
  const toggle = (file: string) => {
    const next = new Set(chosen);
    if (!next.delete(file)) next.add(file);
    onChange(next);
  };
  if (scan.films.length + scan.passed_over.length === 0)
    return <p>No film lies below this folder.</p>;
  return (
    <div>
      <p className="text-note text-stone">
        {format.counted(scan.films.length, "film")}, {fresh} of them new
        {scan.more && "; the newest of them are listed, bring these in first"}.
      </p>
      {scan.passed_over.map(({ file, why }) => (
        <p key={file} className="text-note text-stone">
          Passed over: {file}, because {why}.
        </p>
      ))}
      <ul className="mt-1 max-h-[38vh] overflow-y-auto border-y border-line">
        {scan.films.map((film) => (
          <li key={film.file} className="border-b border-line last:border-0">
            <label className="flex items-center gap-3 py-1 text-note">
              <input
                type="checkbox"
                checked={chosen.has(film.file)}
                onChange={() => toggle(film.file)}
                className="accent-[var(--ridge-4)]"
              />
              <span
                className={`min-w-0 flex-1 truncate ${film.known ? "text-stone" : "font-medium"}`}
              >
                {film.file}
              </span>
              <span className="text-stone">
                {film.known ? "here already" : format.fileSize(film.size_bytes)}
              </span>
              <span className="hidden text-stone sm:inline">
                {format.when(film.modified_at).day}
              </span>
            </label>
          </li>
        ))}
      </ul>
    </div>
  );
}
