import { Link } from "react-router";
import type { DrillTrial } from "../../../api/trials";
import * as format from "../../../formats";
import { Select } from "../../../ui/Select";
import { Counted } from "./Counted";
import { Differences } from "./Differences";
import { TakesPicture } from "./TakesPicture";
import { signed, spoken } from "./words";

/** A trial: its takes, the differences they tell, tiring, and what stays out. */
export function TrialPicture({ trial, onBy }: { trial: DrillTrial; onBy: (by: string) => void }) {
  const { place } = trial;
  return (
    <article aria-label={trial.drill} className="min-w-0">
      <header className="flex flex-wrap items-baseline gap-x-4 gap-y-1 px-4 pt-3 sm:px-8">
        <h2 className="text-large font-semibold">
          {trial.drill_key === "" ? (
            trial.drill
          ) : (
            <Link to={`/plan/drills/${trial.drill_key}`} className="hover:underline">
              {trial.drill}
            </Link>
          )}
        </h2>
        <p className="text-note text-stone">
          {trial.sessions === 1 ? "1 session" : `${trial.sessions} sessions`}
          {trial.spread !== null && `, takes of a session differ by ${trial.spread.toFixed(2)}`}
        </p>
        <span className="ml-auto">
          <Select
            label="Compared by"
            value={trial.figure.key}
            options={trial.figures.map((one) => ({ value: one.key, words: one.words }))}
            onChange={onBy}
          />
        </span>
      </header>
      <p className="sr-only">{spoken(trial)}</p>
      <div className="px-4 pt-2 sm:px-8">
        <TakesPicture trial={trial} />
      </div>
      {trial.why_not ? (
        <p className="border-t border-line px-4 py-3 sm:px-8">{trial.why_not}</p>
      ) : (
        <Differences trial={trial} />
      )}
      {place && (
        <p className="border-t border-line px-4 py-2.5 text-note sm:px-8">
          <b className="font-semibold">Tiring: {signed(place.value)} a take</b>
          {place.low !== null &&
            place.high !== null &&
            ` (${signed(place.low)} to ${signed(place.high)})`}
          , whatever the variation.{" "}
          {place.low !== null && place.low > 0
            ? "You get rougher through a session: rest longer, or film less."
            : "No tiring can be told from these takes."}
        </p>
      )}
      <Counted trial={trial} />
      <p className="px-4 pb-6 text-small text-stone sm:px-8">
        Every session is compared with itself, so that a good day favours no side.{" "}
        {trial.drill_key === ""
          ? `${format.takes(trial.takes.length)} are compared; those of no session count as one each day.`
          : `${format.takes(trial.takes.length)} were filed under this drill.`}
      </p>
    </article>
  );
}
