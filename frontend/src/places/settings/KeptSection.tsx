import { useKept } from "../../api/settings";
import * as format from "../../formats";
import { FaultView } from "../../ui/FaultView";

/** The whole library in one file, and the copies of its database. */
export function KeptSection() {
  const found = useKept();
  if (found.isLoadingError) return <FaultView error={found.error} />;
  if (!found.data) return null;
  const { copies, films_bytes } = found.data;
  const [newest] = copies;
  return (
    <section aria-label="Kept for good" className="border-b border-line px-4 py-4 sm:px-8">
      <h2 className="title text-heading">Kept for good</h2>
      <p className="max-w-[720px] text-note text-stone">
        An archive is one ZIP file of open parts: tables, paths, sequences and the films as they
        came. Make one now and then, and keep it on another disk; your browser shows how far it is
        and can stop it. <code>ridgewind restore FILE FOLDER</code> makes a library of it again.
      </p>
      <p className="mt-3 flex flex-wrap gap-x-6 gap-y-1 text-note">
        <a href="/api/archive.zip?films=true" download className="font-semibold underline">
          Archive with films ({format.fileSize(films_bytes)})
        </a>
        <a href="/api/archive.zip?films=false" download className="font-semibold underline">
          Archive without films
        </a>
      </p>
      <p className="mt-3 max-w-[720px] text-note text-stone">
        {newest === undefined
          ? "The database has no copy yet; one is made each day of use."
          : `The database is copied each day of use and before each update; ${copies.length === 1 ? "one copy is" : `the last ${copies.length} are`} kept, the newest of ${format.when(newest).day}. Where it is found damaged at a start, the newest good copy takes its place.`}
      </p>
    </section>
  );
}
