import { useEffect } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import { usePlanNext, useTrial, useTrials, type DrillTrial } from "../../../api/trials";
import * as format from "../../../formats";
import { Key } from "../../../keys/Key";
import { useKeys } from "../../../keys/useKeys";
import { Button } from "../../../ui/Button";
import { FaultView } from "../../../ui/FaultView";
import { useNotices } from "../../../ui/notices";
import { Select } from "../../../ui/Select";
import { FindingsTabs } from "../FindingsTabs";
import { Counted } from "./Counted";
import { Differences } from "./Differences";
import { TakesPicture } from "./TakesPicture";
import { TrialChoice, TrialList } from "./TrialList";
import { signed, spoken } from "./words";

/** Which way of holding is really steadier: the variations of each drill, over all its sessions. */
export function TrialsPage() {
  const found = useTrials();
  const [search, setSearch] = useSearchParams();
  const lines = found.data?.trials ?? [];
  const drill = search.get("drill") ?? lines[0]?.drill_key ?? null;
  const trial = useTrial(drill, search.get("by")).data;
  const open = (key: string, by: string | null = null) =>
    setSearch(by === null ? { drill: key } : { drill: key, by }, { replace: true });
  const move = (step: number) => {
    const next = lines[lines.findIndex((line) => line.drill_key === drill) + step];
    if (next) open(next.drill_key);
  };
  const next = useNext(trial);
  useEffect(() => {
    document.title = "Trials · Ridgewind";
  }, []);
  useKeys({
    "Choose a trial": { ArrowUp: () => move(-1), ArrowDown: () => move(1) },
    "Film the next takes": { Enter: next.go },
  });
  if (found.isLoadingError) return <FaultView error={found.error} />;
  return (
    <>
      <FindingsTabs />
      <header className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-line px-4 pt-4 pb-3 sm:px-8">
        <h1 className="title text-title leading-tight">Trials</h1>
        <p className="text-stone">
          Which way of holding is really steadier for you, over every session in which you tried it.
        </p>
        {trial && trial.next_round.length > 0 && (
          <Button look="main" className="sm:ml-auto" disabled={next.busy} onClick={next.go}>
            Film the next {trial.next_round.length * trial.rounds} takes <Key>Enter</Key>
          </Button>
        )}
      </header>
      {found.data && lines.length === 0 ? (
        <p className="max-w-[70ch] p-4 sm:p-8">
          Nothing to compare yet. Practise a drill with its plain control and a variation,{" "}
          <Link to="/plan" className="font-semibold underline">
            plan a session
          </Link>
          , and file its films: from two takes on they stand here side by side, and from three a
          side they tell something.
        </p>
      ) : (
        <div className="grid md:grid-cols-[260px_minmax(0,1fr)]">
          <TrialChoice lines={lines} chosen={drill} onOpen={(key) => open(key)} />
          <TrialList lines={lines} chosen={drill} onOpen={(key) => open(key)} />
          {trial && <Picture trial={trial} onBy={(by) => open(trial.drill_key, by)} />}
        </div>
      )}
    </>
  );
}

/** Hand the next takes to the planner: a session of its own, opened at once. */
function useNext(trial: DrillTrial | undefined) {
  const plan = usePlanNext();
  const navigate = useNavigate();
  const { fail } = useNotices();
  return {
    busy: plan.isPending,
    go: () => {
      if (!trial || trial.next_round.length === 0 || plan.isPending) return;
      plan.mutate(trial.drill_key, {
        onError: fail,
        onSuccess: ({ session_id }) => void navigate(`/practice/${session_id}`),
      });
    },
  };
}

function Picture({ trial, onBy }: { trial: DrillTrial; onBy: (by: string) => void }) {
  const { place } = trial;
  return (
    <article aria-label={trial.drill} className="min-w-0">
      <header className="flex flex-wrap items-baseline gap-x-4 gap-y-1 px-4 pt-3 sm:px-8">
        <h2 className="text-large font-semibold">
          <Link to={`/plan/drills/${trial.drill_key}`} className="hover:underline">
            {trial.drill}
          </Link>
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
        {format.takes(trial.takes.length)} were filed under this drill.
      </p>
    </article>
  );
}
