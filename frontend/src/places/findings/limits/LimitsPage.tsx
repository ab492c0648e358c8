import { useEffect } from "react";
import { Link, useSearchParams } from "react-router";
import { useLimits, type Limits } from "../../../api/limits";
import * as format from "../../../formats";
import { FaultView } from "../../../ui/FaultView";
import { Select } from "../../../ui/Select";
import { FindingsTabs } from "../FindingsTabs";
import { EnduranceLimits } from "./EnduranceLimits";
import { HoldLimits } from "./HoldLimits";
import { LensLimits } from "./LensLimits";
import { StrapCurve } from "./StrapCurve";
import { WalkCurve } from "./WalkCurve";

/** How far each technique goes under a brief: how long a lens, how long a hold, how fast a walk. */
export function LimitsPage() {
  const [search, setSearch] = useSearchParams();
  const wanted = search.get("brief");
  const found = useLimits(wanted === null ? null : Number(wanted));
  const limits = found.data;
  useEffect(() => {
    document.title = "Limits · Ridgewind";
  }, []);
  if (found.isLoadingError) return <FaultView error={found.error} />;
  return (
    <>
      <FindingsTabs />
      <header className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-line px-4 pt-4 pb-3 sm:px-8">
        <h1 className="title text-title leading-tight">Limits</h1>
        {limits && (
          <>
            <p className="text-stone">
              How long a lens, a hold, a session, and how fast a walk, at gust{" "}
              {format.gust(limits.target)} or under.
            </p>
            <span className="sm:ml-auto">
              <Select
                label="Brief"
                value={String(limits.brief.id)}
                options={limits.briefs.map((one) => ({ value: String(one.id), words: one.name }))}
                onChange={(id) => setSearch({ brief: id }, { replace: true })}
              />
            </span>
          </>
        )}
      </header>
      {limits && <Pictures limits={limits} />}
    </>
  );
}

function Pictures({ limits }: { limits: Limits }) {
  const walks = limits.techniques.filter((one) => one.walk !== null);
  if (limits.techniques.length === 0) {
    return (
      <p className="max-w-[70ch] p-4 sm:p-8">
        No filed take is measured yet.{" "}
        <Link to="/plan" className="font-semibold underline">
          Plan a session
        </Link>
        , film it and file its films: each technique then shows here how far it goes.
      </p>
    );
  }
  return (
    <>
      <LensLimits limits={limits} />
      <HoldLimits limits={limits} />
      <EnduranceLimits briefId={limits.brief.id} />
      <div className="grid grid-cols-1 gap-x-10 gap-y-5 border-t border-line px-4 py-3 sm:px-8 lg:grid-cols-2">
        {limits.strap && <StrapCurve strap={limits.strap} />}
        {walks.length > 0 && (
          <section aria-label="Fastest walk" className="min-w-0">
            <h2 className="label-wide">Fastest walk</h2>
            <div className="grid grid-cols-1 gap-4 xl:grid-cols-2">
              {walks.map(
                (one) =>
                  one.walk && (
                    <WalkCurve key={one.key} one={one} walk={one.walk} target={limits.target} />
                  ),
              )}
            </div>
          </section>
        )}
      </div>
      <p className="px-4 pb-6 text-small text-stone sm:px-8">
        Few takes of a technique lean on all of yours. Rejected and unsure takes stay out, as in the
        trials.
      </p>
    </>
  );
}
