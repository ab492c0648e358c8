import { useSequenceFilm, useSequenceFilmChange, type Joined } from "../../api/joined";
import * as format from "../../formats";
import { Button } from "../../ui/Button";
import { FaultView } from "../../ui/FaultView";
import { Progress } from "../../ui/Progress";

const FILES = [
  { kind: "otio", words: "Time line (OTIO)" },
  { kind: "csv", words: "CSV" },
  { kind: "json", words: "JSON" },
  { kind: "pdf", words: "Contact sheet (PDF)" },
  { kind: "png", words: "Contact sheet (PNG)" },
] as const;

/** What can be taken to a desk, put on paper, or shown. */
export function TakenAlong({ id, joined }: { id: number; joined: Joined }) {
  const film = useSequenceFilm(id, true).data;
  const change = useSequenceFilmChange(id, true);
  const busy = film?.state === "queued" || film?.state === "running";
  const there = film?.state === "done";
  return (
    <section aria-label="Taken along" className="border-t border-line px-4 py-4 sm:px-8">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2 text-note">
        <h2 className="label-wide">Take it along</h2>
        {FILES.map((file) => (
          <a
            key={file.kind}
            href={`/api/outings/${id}/sequence.${file.kind}`}
            className="underline"
          >
            {file.words}
          </a>
        ))}
        {there && film && (
          <a href={`/api/outings/${id}/film.mp4?whole=true`} className="underline">
            Film (MP4{film.bytes !== null && `, ${format.fileSize(film.bytes)}`})
          </a>
        )}
        {busy ? (
          <span className="flex w-[320px] items-center gap-3">
            <Progress value={film.progress} label="Full-size film" />
            <Button look="bare" onClick={() => change.mutate("stop")}>
              Stop
            </Button>
          </span>
        ) : (
          (!there || film.stale) && (
            <Button onClick={() => change.mutate("begin")}>
              {there ? "Render the film as it is now" : "Render it at full size"}
            </Button>
          )
        )}
        <span className="text-stone">
          {film?.error ??
            (there && film.stale
              ? "The film is from before the last change."
              : `Up to ${joined.delivered.join(" × ")} px, never larger than what was filmed.`)}
        </span>
      </div>
      {change.error && <FaultView error={change.error} />}
    </section>
  );
}
