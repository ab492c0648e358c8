import { Dices, Lock, LockOpen } from "lucide-react";
import { useEffect, useState } from "react";
import { useNavigate } from "react-router";
import {
  keepSession,
  useDrills,
  usePlan,
  type Block,
  type Drill,
  type PracticeAsk,
  type PracticePlan,
} from "../../api/practice";
import { useLimits } from "../../api/limits";
import { SmallBody } from "../../body/SmallBody";
import { Button } from "../../ui/Button";
import { FaultView } from "../../ui/FaultView";
import { Key } from "../../keys/Key";
import { useNotices } from "../../ui/notices";
import { useDraft } from "../../ui/useDraft";
import { useSettled } from "../../ui/useSettled";
import { useKeys } from "../../keys/useKeys";
import * as format from "../../formats";
import { Asked } from "./Asked";
import { PlanStrip } from "./PlanStrip";
import { PlanTabs } from "./PlanTabs";
import { limitWarnings } from "./limitWarnings";

const FIRST: PracticeAsk = {
  minutes: 30,
  goals: [],
  space: "path",
  needs: ["strap", "lean", "even_ground"],
  limits: [],
  seed: 1,
  locked: [],
  shot: "",
  focal_eq_mm: null,
};

/** Today's session, built while it is asked for; locked parts stay. */
export function SessionPlanner() {
  const draft = useDraft("session-plan", FIRST);
  const ask = draft.value;
  const asked = useSettled(ask);
  const found = usePlan(asked);
  const drills = useDrills();
  const navigate = useNavigate();
  const { fail } = useNotices();
  const [busy, setBusy] = useState(false);
  const put = (part: Partial<PracticeAsk>) => draft.change({ ...ask, ...part });
  const library = Object.fromEntries(
    (drills.data?.drills ?? []).map((item) => [item.drill.key, item.drill]),
  );
  const plan = found.data?.plan;
  // What is shown until the answer comes is the plan of the question before.
  const waits = found.isPlaceholderData || asked !== ask;
  useEffect(() => {
    document.title = "Plan · Ridgewind";
  }, []);
  const keep = () => {
    if (!plan || plan.blocks.length === 0 || busy || waits) return;
    setBusy(true);
    const name = `${Math.round(plan.total_s / 60)} minutes: ${library[plan.blocks[0]?.drill_key ?? ""]?.name ?? "practice"}`;
    keepSession({ name: name.slice(0, 120), ask, plan, setup_id: null })
      .then((made) => navigate(`/practice/${made.session.id}`))
      .catch(fail)
      .finally(() => setBusy(false));
  };
  const again = () => put({ seed: ask.seed + 1 });
  useKeys({ "Keep and practise": { Enter: keep }, "Another order": { r: again } });
  const lock = (index: number, block: Block, on: boolean) =>
    put({
      locked: on
        ? [...ask.locked, { index, block }]
        : ask.locked.filter((one) => one.block.drill_key !== block.drill_key),
    });
  return (
    <>
      <PlanTabs />
      <header className="flex flex-wrap items-baseline gap-x-4 gap-y-2 px-4 pt-4 pb-3 sm:px-8">
        <h1 className="title text-title leading-tight">Today’s session</h1>
        {plan && (
          <p className="text-stone" aria-live="polite">
            {format.counted(plan.blocks.length, "drill")}, {format.takes(takesOf(plan))},{" "}
            {Math.round(plan.total_s / 60)} of {ask.minutes} minutes
          </p>
        )}
        <span className="ml-auto flex gap-2">
          <Button onClick={again}>
            <Dices size={15} aria-hidden /> Another order <Key>R</Key>
          </Button>
          <Button
            look="main"
            disabled={!plan || plan.blocks.length === 0 || busy || waits}
            onClick={keep}
          >
            Keep and practise <Key>Enter</Key>
          </Button>
        </span>
      </header>
      {found.isLoadingError && <FaultView error={found.error} />}
      <Asked ask={ask} put={put} />
      {plan && plan.blocks.length > 0 && <PlanStrip plan={plan} library={library} />}
      {plan && plan.blocks.length === 0 && (
        <p className="px-4 py-6 sm:px-8">
          Nothing fits. Give it more minutes, more room, or spare fewer parts.
        </p>
      )}
      {plan && plan.blocks.length > 0 && (
        <Blocks plan={plan} library={library} ask={ask} onLock={lock} />
      )}
    </>
  );
}

const takesOf = (plan: PracticePlan) =>
  plan.blocks.reduce((sum, block) => sum + block.order.length, 0);

type BlocksProps = {
  plan: PracticePlan;
  library: Record<string, Drill>;
  ask: PracticeAsk;
  onLock: (index: number, block: Block, on: boolean) => void;
};

function Blocks({ plan, library, ask, onLock }: BlocksProps) {
  const limits = useLimits(null).data;
  const warnings = limits ? limitWarnings(plan, limits, ask.focal_eq_mm ?? null, library) : {};
  return (
    <ol className="pb-8">
      {plan.blocks.map((block, index) => {
        const drill = library[block.drill_key];
        const locked = ask.locked.some((one) => one.block.drill_key === block.drill_key);
        return (
          <li
            key={block.drill_key}
            className="grid grid-cols-[24px_minmax(0,1fr)_32px] gap-x-3 border-b border-line px-4 py-2.5 sm:px-8 md:grid-cols-[24px_minmax(0,1fr)_minmax(0,1fr)_32px]"
          >
            <span className="figure-narrow text-large leading-none text-stone">{index + 1}</span>
            <div className="relative min-h-[54px] pl-[68px]">
              <SmallBody
                drill={block.drill_key}
                className="absolute top-1/2 left-0 size-[54px] -translate-y-1/2"
              />
              <p className="font-semibold">{drill?.name ?? block.drill_key}</p>
              <p className="text-small text-stone">{block.reasons.join(" · ")}</p>
            </div>
            <div className="col-start-2 md:col-start-auto">
              <p className="text-note">
                {block.order
                  .map((key) => drill?.variations.find((one) => one.key === key)?.name ?? key)
                  .join(" → ")}
              </p>
              {warnings[block.drill_key] && (
                <p className="text-small font-medium text-ember-deep">
                  {warnings[block.drill_key]}
                </p>
              )}
              <p className="text-small text-stone">
                {format.takes(block.order.length)} of {block.take_s} s, rest {block.rest_s} s
              </p>
            </div>
            <button
              type="button"
              aria-pressed={locked}
              aria-label={`Lock ${drill?.name ?? block.drill_key}`}
              onClick={() => onLock(index, block, !locked)}
              className={`col-start-3 row-start-1 md:col-start-4 ${locked ? "text-ink" : "text-stone hover:text-ink"}`}
            >
              {locked ? <Lock size={17} /> : <LockOpen size={17} />}
            </button>
          </li>
        );
      })}
    </ol>
  );
}
