import { useEffect } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import { usePractise, useProgress, type Season } from "../../../api/progress";
import * as format from "../../../formats";
import { useKeys } from "../../../keys/useKeys";
import { Button } from "../../../ui/Button";
import { FaultView } from "../../../ui/FaultView";
import { useNotices } from "../../../ui/notices";
import { Select } from "../../../ui/Select";
import { FindingsTabs } from "../FindingsTabs";
import { Landscape, Records } from "./Landscape";
import { shortTrend, totalWords, trendWords, workWords } from "./words";

const ALL = "";

/** Am I getting better: the season as a landscape, what became of each drill, what comes next. */
export function ProgressPage() {
  const [search, setSearch] = useSearchParams();
  const drill = search.get("drill");
  const found = useProgress(drill);
  const season = found.data;
  const open = (key: string) => setSearch(key === ALL ? {} : { drill: key }, { replace: true });
  const keysOf = [ALL, ...(season?.drills.map((one) => one.drill_key) ?? [])];
  const move = (step: number) => {
    const next = keysOf[keysOf.indexOf(drill ?? ALL) + step];
    if (next !== undefined) open(next);
  };
  useEffect(() => {
    document.title = "Progress · Ridgewind";
  }, []);
  useKeys({ "Choose a drill": { ArrowUp: () => move(-1), ArrowDown: () => move(1) } });
  if (found.isLoadingError) return <FaultView error={found.error} />;
  return (
    <>
      <FindingsTabs />
      <header className="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-line px-4 pt-4 pb-3 sm:px-8">
        <h1 className="title text-title leading-tight">Progress</h1>
        {season && season.weeks.length > 0 && <p className="text-stone">{totalWords(season)}</p>}
      </header>
      {season && season.drills.length === 0 && (
        <p className="max-w-[70ch] p-4 sm:p-8">
          No filed take is measured yet.{" "}
          <Link to="/plan" className="font-semibold underline">
            Plan a session
          </Link>
          , film it and file its films: each week then stands here as a ridge, the newest in front.
        </p>
      )}
      {season && season.drills.length > 0 && (
        <div className="grid md:grid-cols-[260px_minmax(0,1fr)]">
          <Choice season={season} chosen={drill ?? ALL} onOpen={open} />
          <article className="min-w-0">
            <Chosen season={season} />
            <div className="px-4 sm:px-8">
              <Landscape season={season} />
            </div>
            <Next season={season} />
            <Records season={season} onOpen={open} />
            <p className="px-4 py-4 text-small text-stone sm:px-8">
              Trends compare each take with its own technique, so that an easier one filmed later
              passes for no progress. Rejected and unsure takes stay out.
            </p>
          </article>
        </div>
      )}
    </>
  );
}

type ChoiceProps = { season: Season; chosen: string; onOpen: (key: string) => void };

function Choice({ season, chosen, onOpen }: ChoiceProps) {
  const lines = [
    { key: ALL, name: "All drills", note: shortTrend(season.trend) },
    ...season.drills.map((one) => ({
      key: one.drill_key,
      name: one.drill,
      note: `usual ${format.gust(one.usual)}, ${shortTrend(one.trend)}`,
    })),
  ];
  return (
    <>
      <div className="border-b border-line px-4 py-2.5 md:hidden">
        <Select
          wide
          label="Drill"
          value={chosen}
          options={lines.map((one) => ({ value: one.key, words: one.name }))}
          onChange={onOpen}
        />
      </div>
      <ul className="hidden border-r border-line md:block">
        {lines.map((one) => (
          <li key={one.key} className="relative border-b border-line last:border-b-0">
            {one.key === chosen && <i className="absolute inset-y-0 left-0 w-1 bg-lamp" />}
            <button
              type="button"
              aria-current={one.key === chosen}
              onClick={() => onOpen(one.key)}
              className="block w-full px-4 py-2 text-left hover:bg-paper aria-[current=true]:bg-paper sm:pl-8"
            >
              <b className="block font-semibold">{one.name}</b>
              <span className="block text-small text-stone">{one.note}</span>
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}

function Chosen({ season }: { season: Season }) {
  const { chosen } = season;
  const trend = chosen ? chosen.trend : season.trend;
  return (
    <header className="px-4 pt-3 pb-1 sm:px-8">
      <h2 className="text-large font-semibold">
        {chosen ? (
          <Link to={`/plan/drills/${chosen.drill_key}`} className="hover:underline">
            {chosen.drill}
          </Link>
        ) : (
          "All drills"
        )}
      </h2>
      <p className="text-note">
        {trendWords(trend)}{" "}
        {chosen && (
          <span className="text-stone">
            {chosen.figure.words} of {format.takes(chosen.takes)}; usual now{" "}
            {format.gust(chosen.usual)}.
          </span>
        )}
      </p>
    </header>
  );
}

/** Drills with the most to gain, each practised in one step. */
function Next({ season }: { season: Season }) {
  const practise = usePractise();
  const navigate = useNavigate();
  const { fail } = useNotices();
  if (season.work.length === 0) return null;
  const go = (key: string) =>
    practise.mutate(
      { key, variation: null },
      { onError: fail, onSuccess: (kept) => void navigate(`/practice/${kept.session_id}`) },
    );
  return (
    <section aria-label="What to work on next" className="border-t border-line px-4 py-3 sm:px-8">
      <h2 className="label-wide">What to work on next</h2>
      <ol>
        {season.work.map((one) => (
          <li
            key={one.drill_key}
            className="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-line py-2 first:border-t-0"
          >
            <p className="min-w-0 flex-1 basis-60">
              <b className="font-semibold">{one.drill}</b>{" "}
              <span className="block text-note text-stone">{workWords(one)}</span>
            </p>
            <Button disabled={practise.isPending} onClick={() => go(one.drill_key)}>
              Practise this
            </Button>
          </li>
        ))}
      </ol>
    </section>
  );
}
