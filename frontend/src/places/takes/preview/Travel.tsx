import type { RemedyLine } from "../../../api/client";
import {
  recipeAddress,
  renderFor,
  useForgetRender,
  useRender,
  useRenders,
  type RemedyChoice,
} from "../../../api/decisions";
import * as format from "../../../formats";
import { Button } from "../../../ui/Button";
import { Progress } from "../../../ui/Progress";

type TravelProps = { id: number; wanted: RemedyChoice; remedy: RemedyLine; gone: string | null };

/** Why an original cannot be rendered from, null where it is here. */
export const whereItWent = (detail: { cleared: boolean; away: boolean }) =>
  detail.cleared
    ? "Its original was cleared"
    : detail.away
      ? "Its original is on the second disk"
      : null;

/** The remedy's numbers as files, and all of it as a film. */
export function Travel({ id, wanted, remedy, gone }: TravelProps) {
  const renders = useRenders(id);
  const ask = useRender(id);
  const forget = useForgetRender();
  const film = renderFor(renders.data?.renders, wanted, "film", remedy);
  const busy = film?.state === "queued" || film?.state === "running";
  return (
    <div className="border-t border-line pt-2 text-note">
      <h3 className="label-wide mb-1">Take it along</h3>
      <p className="flex flex-wrap gap-x-4 gap-y-1 font-semibold">
        <a className="underline" href={recipeAddress(id, wanted, "csv")} download>
          Numbers, CSV
        </a>
        <a className="underline" href={recipeAddress(id, wanted, "json")} download>
          Numbers and windows, JSON
        </a>
        {film?.state === "done" && (
          <span>
            <a className="underline" href={`/api/renders/${film.id}/film.mp4`} download>
              Film, {format.fileSize(film.size_bytes ?? 0)}
            </a>{" "}
            <button
              type="button"
              className="font-normal text-stone underline hover:text-ink"
              onClick={() => forget.mutate(film.id)}
            >
              remove
            </button>
          </span>
        )}
      </p>
      {busy && (
        <div className="mt-1 flex items-center gap-3">
          <div className="flex-1">
            <Progress value={film.progress ?? 0} label="Rendering the film" />
          </div>
          <Button look="bare" onClick={() => forget.mutate(film.id)}>
            Stop
          </Button>
        </div>
      )}
      {film?.state === "failed" && (
        <p role="alert" className="text-ember-deep">
          {film.fault_what}; {film.fault_next}.
        </p>
      )}
      {!busy && film?.state !== "done" && (
        <Button
          className="mt-1.5"
          disabled={gone !== null}
          onClick={() => ask.mutate({ wanted, purpose: "film" })}
        >
          {gone ?? "Render all of it, full size"}
        </Button>
      )}
    </div>
  );
}
