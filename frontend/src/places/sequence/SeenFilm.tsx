import type { RefObject } from "react";
import { useSequenceFilmChange, type Joined, type SequenceFilm } from "../../api/joined";
import * as format from "../../formats";
import { Key } from "../../keys/Key";
import { Button } from "../../ui/Button";
import { FaultView } from "../../ui/FaultView";
import { Progress } from "../../ui/Progress";

type Props = {
  id: number;
  joined: Joined;
  film: SequenceFilm | undefined;
  video: RefObject<HTMLVideoElement | null>;
  onTime: (seconds: number) => void;
};

/** How far a prediction may be from what was rendered before it is told. */
const AGREES = 0.4;

/** The whole sequence as one small film, and what it measures as. */
export function SeenFilm({ id, joined, film, video, onTime }: Props) {
  const change = useSequenceFilmChange(id);
  if (!film) return null;
  const busy = film.state === "queued" || film.state === "running";
  const there = film.state === "done";
  const off = joined.pieces.filter((one, at) => {
    const gust = film.gusts[at];
    return gust != null && one.gust !== null && Math.abs(gust - one.gust) > AGREES;
  });
  return (
    <section aria-label="The film" className="px-4 py-4 sm:px-8">
      {change.error && <FaultView error={change.error} />}
      {(!there || film.stale) && !busy && (
        <p className="flex flex-wrap items-center gap-3">
          <Button look="main" onClick={() => change.mutate("begin")}>
            {film.stale && there ? "See it as it is now" : "See it as one film"} <Key>V</Key>
          </Button>
          <span className="text-note text-stone">
            {film.error ??
              (film.stale && there
                ? "The film below is from before; only what has changed is rendered."
                : "Rendered small, with speeds, windows, polish and sound, and measured again.")}
          </span>
        </p>
      )}
      {busy && (
        <div className="flex max-w-[480px] items-center gap-3">
          <Progress value={film.progress} label="Rendered" />
          <Button look="bare" onClick={() => change.mutate("stop")}>
            Stop
          </Button>
        </div>
      )}
      {there && (
        <div className="mt-3 flex flex-wrap gap-6">
          <video
            key={film.id}
            ref={video}
            src={`/api/outings/${id}/film.mp4`}
            controls
            muted
            playsInline
            aria-label="The sequence as one film"
            onTimeUpdate={(event) => onTime(event.currentTarget.currentTime)}
            className="max-h-[420px] w-full max-w-[640px] bg-ink object-contain"
          />
          {!film.stale && (
            <p className="max-w-[36ch] text-note text-stone">
              {off.length === 0
                ? "Measured again, every piece reads as predicted, within 0.4."
                : `Measured again, ${off.map((one) => one.subject).join(", ")} ${off.length === 1 ? "reads" : "read"} otherwise than predicted: look whether it stutters or something fills the picture.`}{" "}
              Gusts as rendered: {film.gusts.map((one) => format.gust(one)).join(", ")}.
            </p>
          )}
        </div>
      )}
    </section>
  );
}
