import { useState } from "react";
import { Link } from "react-router";
import { useWatch, useWatched, type Watched } from "../../api/watched";
import { Button } from "../../ui/Button";
import { FaultView } from "../../ui/FaultView";
import { TextField } from "../../ui/TextField";

const STATES = {
  off: "No folder is watched.",
  watching: "Watching: each film is taken in once it is whole.",
  gone: "The folder is not there at the moment; it is watched again when it returns.",
} as const;

/** The folder from which films come by themselves. */
export function WatchedSection() {
  const found = useWatched();
  const watch = useWatch();
  const [path, setPath] = useState("");
  const watched = found.data;
  if (found.isLoadingError) return <FaultView error={found.error} />;
  if (!watched) return null;
  return (
    <section
      aria-label="Films that come by themselves"
      className="border-b border-line px-4 py-4 sm:px-8"
    >
      <h2 className="title text-heading">Films that come by themselves</h2>
      <p className="max-w-[80ch] text-note text-stone">
        A folder that your phone or recorder fills, on this computer: what comes to it is copied in,
        measured, and filed under the session that runs where its slate or clock says so. What is
        there when you begin stays out; nothing in the folder is changed.
      </p>
      <p role="status" className="mt-2">
        {STATES[watched.state]} {watched.root && <b className="font-semibold">{watched.root}</b>}
      </p>
      {watch.error && <FaultView error={watch.error} />}
      {watched.root === null ? (
        <form
          className="mt-2 flex max-w-[640px] items-end gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            if (path.trim()) watch.mutate(path.trim());
          }}
        >
          <span className="grow">
            <TextField label="Folder to watch" value={path} onChange={setPath} />
          </span>
          <Button type="submit" disabled={!path.trim() || watch.isPending}>
            Watch it
          </Button>
        </form>
      ) : (
        <div className="mt-2">
          <Button disabled={watch.isPending} onClick={() => watch.mutate(null)}>
            Watch no more
          </Button>
        </div>
      )}
      <Arrived films={watched.films} />
    </section>
  );
}

function Arrived({ films }: { films: Watched["films"] }) {
  if (films.length === 0) return null;
  return (
    <ul aria-label="What came" className="mt-3 max-w-[640px] text-note">
      {films.map((one, k) => (
        <li key={k} className="flex gap-3 border-t border-line py-1">
          <span className="min-w-0 grow truncate">{one.file}</span>
          {one.take_id !== null && (
            <Link to={`/takes/${one.take_id}`} className="underline">
              Open its take
            </Link>
          )}
          {one.fault && <span className="text-ember-deep">{one.fault}</span>}
        </li>
      ))}
    </ul>
  );
}
