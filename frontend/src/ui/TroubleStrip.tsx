import { useQueryClient, type QueryClient } from "@tanstack/react-query";
import { useSyncExternalStore } from "react";
import { ExplainedError } from "../api/client";
import { useKeptSince } from "../api/kept";
import { useMendedRead, useStatus } from "../api/takes";
import * as format from "../formats";
import { Button } from "./Button";

/** Says above the page what keeps it from being kept or read anew; the page itself stays. */
export function TroubleStrip() {
  const queries = useQueryClient();
  const trouble = useStatus().data?.trouble;
  const failed = useFailedRead(queries);
  const since = useKeptSince();
  const told = failed ?? (since ? away(since) : trouble);
  return (
    <div role="status" aria-live="polite">
      {told && (
        <p className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-ember bg-paper px-4 py-2 text-note sm:px-8">
          <b className="font-semibold text-ember-deep">{told.message}</b>
          <span className="text-stone">{told.hint}</span>
          {failed && <Button onClick={() => readAgain(queries)}>Try again</Button>}
        </p>
      )}
      {!told && <MendedStrip />}
    </div>
  );
}

/** The database was damaged and is an earlier copy again; said until it is read. */
function MendedStrip() {
  const mended = useStatus().data?.mended;
  const read = useMendedRead();
  if (!mended) return null;
  const { day, time } = format.when(mended.copied_at);
  return (
    <p className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-lamp bg-paper px-4 py-2 text-note sm:px-8">
      <b className="font-semibold">
        The database was damaged: it is the copy of {day}, {time} again.
      </b>
      <span className="text-stone">
        {mended.films === 0
          ? "No film was lost."
          : `No film was lost: ${mended.films} that came since were taken in anew.`}{" "}
        Names, briefs, marks and notes of after that are gone. The damaged one is kept as snapshots/
        {mended.aside}.
      </span>
      <Button onClick={() => read.mutate()}>Understood</Button>
    </p>
  );
}

const away = (since: Date) => ({
  message: "The computer does not answer at the moment.",
  hint: `It may be slow, or out of reach. What you see is from ${format.when(since.toISOString()).time}; your notes are kept here and sent when it answers.`,
});

/** Reads of what is on screen that failed although an older answer is there. */
const failedReads = (queries: QueryClient) =>
  queries
    .getQueryCache()
    .findAll({ type: "active", predicate: ({ state }) => state.status === "error" })
    .filter(({ state }) => state.data !== undefined);

function readAgain(queries: QueryClient): void {
  for (const query of failedReads(queries)) void query.fetch().catch(() => undefined);
}

function useFailedRead(queries: QueryClient) {
  const error = useSyncExternalStore(
    (changed) => queries.getQueryCache().subscribe(changed),
    () => failedReads(queries)[0]?.state.error ?? null,
  );
  if (!error) return null;
  const hint = error instanceof ExplainedError ? error.hint : "";
  return { message: error.message, hint: `${hint} What you see is from before.`.trim() };
}
