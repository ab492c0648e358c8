import { useEffect } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import { usePlanNext, useTrial, useTrials, type DrillTrial } from "../../../api/trials";
import { Key } from "../../../keys/Key";
import { useKeys } from "../../../keys/useKeys";
import { Button } from "../../../ui/Button";
import { FaultView } from "../../../ui/FaultView";
import { useNotices } from "../../../ui/notices";
import { FindingsTabs } from "../FindingsTabs";
import { TrialPicture } from "./TrialPicture";
import { TrialChoice, TrialList } from "./TrialList";

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
          {trial && <TrialPicture trial={trial} onBy={(by) => open(trial.drill_key, by)} />}
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
