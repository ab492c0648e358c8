import { useEffect, type ReactNode } from "react";
import { Link, useNavigate, useParams } from "react-router";
import {
  actOnDrill,
  keepDrill,
  useDrills,
  type Drill,
  type DrillItem,
} from "../../../api/practice";
import { useChanged } from "../../../api/keys";
import { ArchiveButton } from "../../../ui/ArchiveButton";
import * as format from "../../../formats";
import { Button } from "../../../ui/Button";
import { FaultView } from "../../../ui/FaultView";
import { Key } from "../../../keys/Key";
import { useNotices } from "../../../ui/notices";
import { useKeys } from "../../../keys/useKeys";
import { PlanTabs } from "../PlanTabs";
import { LOAD_WORDS, MEASURE_WORDS, NEED_WORDS, SPACE_WORDS, TEMPO_WORDS } from "../words";
import { DrillBody } from "./DrillBody";
import { DrillEditor } from "./DrillEditor";
import { freeKey } from "./keys";

/** One drill: what it is for, how it is done, its schools side by side. */
export function DrillPage() {
  const { key } = useParams();
  const found = useDrills();
  if (found.isLoadingError) return <FaultView error={found.error} />;
  if (!found.data) return <p className="p-8 text-stone">Reading the drills…</p>;
  const item = found.data.drills.find((one) => one.drill.key === key);
  if (!item) return <p className="p-8">There is no such drill. Go back to the drills.</p>;
  return <Loaded key={key} item={item} all={found.data.drills} />;
}

function Loaded({ item, all }: { item: DrillItem; all: DrillItem[] }) {
  const { drill } = item;
  const navigate = useNavigate();
  const changed = useChanged();
  const follow = () => changed("drills");
  const { fail } = useNotices();
  useEffect(() => {
    document.title = `${drill.name} · Ridgewind`;
  }, [drill.name]);
  const copy = () => {
    const own = {
      ...drill,
      key: freeKey(
        drill.key,
        all.map((one) => one.drill.key),
      ),
      name: `${drill.name}, my way`,
    };
    keepDrill(own)
      .then(follow)
      .then(() => navigate(`/plan/drills/${own.key}`))
      .catch(fail);
  };
  useKeys({
    "Copy as your own": { n: copy },
    "Back to the drills": { Escape: () => void navigate("/plan/drills") },
  });
  return (
    <>
      <PlanTabs />
      <header className="flex flex-wrap items-baseline gap-x-4 gap-y-2 px-4 pt-4 pb-2 sm:px-8">
        <h1 className="title text-title leading-tight">{drill.name}</h1>
        <p className="text-stone">{drill.purpose}</p>
        <span className="ml-auto flex gap-2">
          <Button onClick={copy}>
            Copy as your own <Key>N</Key>
          </Button>
          <ArchiveButton
            name={drill.name}
            archived={item.archived}
            act={(act) => actOnDrill(drill.key, act)}
            onChanged={follow}
          />
        </span>
      </header>
      <DrillBody key={drill.key} drillKey={drill.key} />
      {item.shipped ? (
        <Reading drill={drill} all={all} />
      ) : (
        <DrillEditor drill={drill} onKept={follow} />
      )}
    </>
  );
}

function Reading({ drill, all }: { drill: Drill; all: DrillItem[] }) {
  const neighbour = (key: string | null, words: string) => {
    const found = all.find((one) => one.drill.key === key);
    return found ? (
      <p>
        {words}:{" "}
        <Link to={`/plan/drills/${found.drill.key}`} className="font-semibold underline">
          {found.drill.name}
        </Link>
      </p>
    ) : null;
  };
  return (
    <div className="grid gap-x-10 gap-y-5 px-4 pb-10 sm:px-8 lg:grid-cols-[minmax(0,1fr)_340px]">
      <div className="min-w-0 space-y-5">
        <Part words="The move">
          <p className="text-heading font-semibold">{drill.move}</p>
          {drill.feels && <p className="border-l-2 border-lichen-deep pl-3">{drill.feels}</p>}
          <p className="text-stone">{drill.cues.join(" ")}</p>
        </Part>
        <Part words="Ways, to be compared">
          <ul className="border-t border-line">
            {drill.variations.map((one) => (
              <li
                key={one.key}
                className="grid gap-x-4 border-b border-line py-2 sm:grid-cols-[200px_1fr]"
              >
                <p className="font-semibold">
                  {one.name}
                  {one.control && <span className="label-wide ml-2">plain control</span>}
                </p>
                <p>
                  {one.how} <span className="text-stone">{one.reason}</span>
                </p>
              </li>
            ))}
          </ul>
        </Part>
        <Part words="Set up">
          <ol className="list-decimal pl-5">
            {drill.set_up.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ol>
        </Part>
        <Part words="Faults, and one thing to try">
          <ul>
            {drill.faults.map((fault) => (
              <li key={fault.sees} className="border-l-2 border-ridge-3 pl-3">
                {fault.sees} ({fault.cause.replace("_", " ")}): <b>{fault.try_}</b>
              </li>
            ))}
          </ul>
        </Part>
      </div>
      <div className="min-w-0 space-y-4 text-note">
        <Part words="When">
          <p>{drill.use}</p>
          <p className="text-stone">Not: {drill.avoid}</p>
        </Part>
        <Part words="Measured">
          <p>
            {MEASURE_WORDS[drill.measures]}. Passes at gust {format.gust(drill.target)} or less.
          </p>
          <p>
            <Link
              to={`/takes/compare?drill=${encodeURIComponent(drill.key)}`}
              className="underline"
            >
              Your takes of it, side by side
            </Link>
          </p>
          <p className="text-stone">
            {format.takes(drill.takes)} of {drill.take_s} s, rest {drill.rest_s} s ·{" "}
            {TEMPO_WORDS[drill.tempo].toLowerCase()}
          </p>
        </Part>
        <Part words="Needs">
          <p>
            {drill.needs.map((need) => NEED_WORDS[need]).join(", ") || "Nothing but the camera"} ·{" "}
            {SPACE_WORDS[drill.space].toLowerCase()}
          </p>
          <p className="text-stone">
            Loads {drill.loads.map((load) => LOAD_WORDS[load].toLowerCase()).join(", ") || "little"}
          </p>
        </Part>
        <Part words="Cautions">
          {drill.cautions.map((caution) => (
            <p key={caution} className="border-l-2 border-lamp pl-3">
              {caution}
            </p>
          ))}
        </Part>
        <Part words="Neighbours">
          {neighbour(drill.easier, "Easier")}
          {neighbour(drill.harder, "Harder")}
        </Part>
      </div>
    </div>
  );
}

function Part({ words, children }: { words: string; children: ReactNode }) {
  return (
    <section>
      <h2 className="label-wide mb-1">{words}</h2>
      {children}
    </section>
  );
}
