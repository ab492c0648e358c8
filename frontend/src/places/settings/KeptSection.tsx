import { useKept, useTakeBack, type Archive, type Merged } from "../../api/settings";
import * as format from "../../formats";
import { Key } from "../../keys/Key";
import { useKeys } from "../../keys/useKeys";
import { Button } from "../../ui/Button";
import { FaultView } from "../../ui/FaultView";
import { lackWords } from "./archiveWords";

/** The whole library in one file, and the copies of its database. */
export function KeptSection() {
  const found = useKept();
  if (found.isLoadingError) return <FaultView error={found.error} />;
  if (!found.data) return null;
  const { copies, films_bytes, merged, archive, archived } = found.data;
  const [newest] = copies;
  return (
    <section aria-label="Kept for good" className="border-b border-line px-4 py-4 sm:px-8">
      <h2 className="title text-heading">Kept for good</h2>
      <p className="max-w-[720px] text-note text-stone">
        An archive is one ZIP file of open parts: tables, paths, sequences and the films as they
        came. Make one now and then, and keep it on another disk; your browser shows how far it is
        and can stop it. <code>ridgewind restore FILE FOLDER</code> makes a library of it again, or
        brings it into one that is in use.
      </p>
      <p className="mt-3 flex flex-wrap gap-x-6 gap-y-1 text-note">
        <a href="/api/archive.zip?films=true" download className="font-semibold underline">
          Archive with films ({format.fileSize(films_bytes)})
        </a>
        <a href="/api/archive.zip?films=false" download className="font-semibold underline">
          Archive without films
        </a>
      </p>
      <Lacks of={archive} words="An archive made now" />
      {archived && (
        <Lacks of={archived} words={`The archive of ${format.when(archived.made_at ?? "").day}`} />
      )}
      <BroughtIn merged={merged} />
      <p className="mt-3 max-w-[720px] text-note text-stone">
        {newest === undefined
          ? "The database has no copy yet; one is made each day of use."
          : `The database is copied each day of use and before each update; ${copies.length === 1 ? "one copy is" : `the last ${copies.length} are`} kept, the newest of ${format.when(newest).day}. Where it is found damaged at a start, the newest good copy takes its place.`}
      </p>
    </section>
  );
}

/** What is not in an archive though it should be; nothing where all of it is. */
function Lacks({ of, words }: { of: Archive; words: string }) {
  const lines = lackWords(of, words);
  if (lines.length === 0) return null;
  return (
    <ul className="mt-3 max-w-[720px] space-y-1 text-note">
      {lines.map((line) => (
        <li key={line}>{line}</li>
      ))}
    </ul>
  );
}

/** The last archive that came into this library, until it cannot be taken back any more. */
function BroughtIn({ merged }: { merged: Merged | null }) {
  const back = useTakeBack();
  const takeBack = () => back.mutate();
  useKeys({ ...(merged && { "Take back what an archive brought": { u: takeBack } }) });
  const { went, stays } = back.data ?? { went: 0, stays: 0 };
  return (
    <>
      {merged && (
        <p className="mt-3 flex max-w-[720px] flex-wrap items-center gap-x-4 gap-y-1 text-note">
          <span className="min-w-0 grow">
            <b className="font-semibold">{merged.source}</b> was brought in on{" "}
            {format.when(merged.made_at).day}, and can be taken back until{" "}
            {format.when(merged.until).day}; what you changed or used since stays.
          </span>
          <Button disabled={back.isPending} onClick={takeBack}>
            Take it back <Key>U</Key>
          </Button>
        </p>
      )}
      {back.error && <FaultView error={back.error} />}
      {back.data && (
        <p role="status" className="mt-2 text-note">
          {format.counted(went, "thing is", "things are")} gone again
          {stays > 0 && `; ${stays} stay, since you changed or used them`}.
        </p>
      )}
    </>
  );
}
