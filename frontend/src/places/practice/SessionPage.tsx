import { useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import {
  useProposals,
  useLeftNotes,
  useSession,
  useSessionChange,
  type SessionDetail,
  type SessionTake,
} from "../../api/practice";
import { isElsewhere, useStage } from "../../api/stage";
import { useTakes } from "../../api/takes";
import { askForTurning } from "../../camera/motionSensor";
import * as format from "../../formats";
import { Button } from "../../ui/Button";
import { FaultView } from "../../ui/FaultView";
import { Key } from "../../keys/Key";
import { Select } from "../../ui/Select";
import { useKeys } from "../../keys/useKeys";
import { Cautions } from "./Cautions";
import { Filing } from "./Filing";
import { RemoteView } from "./RemoteView";
import { RunChoices } from "./RunChoices";
import { RunnerView } from "./RunnerView";
import { SessionFiles } from "./SessionFiles";
import { useFile } from "./useFile";
import { useRunChoices } from "./useRunChoices";

/** Between two looks at which screen runs it. */
const LOOK_MS = 2000;

/** One session: its cautions, the runner, and what came of it. */
export function SessionPage() {
  const id = Number(useParams()["id"]);
  const found = useSession(id);
  if (found.isLoadingError) return <FaultView error={found.error} />;
  if (!found.data) return <p className="p-8 text-stone">Reading the session…</p>;
  return <Loaded key={id} detail={found.data} />;
}

function Loaded({ detail }: { detail: SessionDetail }) {
  const { session } = detail;
  const [running, setRunning] = useState<"here" | "elsewhere" | null>(null);
  const stage = useStage(session.id, LOOK_MS).data;
  const elsewhere = isElsewhere(stage);
  const choices = useRunChoices();
  const { camera, say, meter } = choices;
  const change = useSessionChange(session.id);
  // Slates may be filmed without the runner.
  const slated = useProposals(session.id).data?.matches.some((one) => one.how === "slate");
  useLeftNotes(session.id);
  const open = session.takes.some((take) => take.state === "planned");
  const start = () => {
    if (!open) return;
    if (meter === "sensor") void askForTurning(); // some phones ask only where one has tapped
    if (session.accepted_at === null) change.mutate({ act: "accept" });
    if (session.ended_at !== null) change.mutate({ act: "end", ended: false });
    setRunning(elsewhere ? "elsewhere" : "here");
  };
  useEffect(() => {
    document.title = `${session.name} · Ridgewind`;
  }, [session.name]);
  useKeys(running ? {} : { "Begin or go on": { Enter: start } });
  if (running === "elsewhere") {
    return (
      <RemoteView
        detail={detail}
        onStop={() => setRunning(null)}
        onRunHere={() => setRunning("here")}
      />
    );
  }
  if (running) {
    return (
      <RunnerView
        detail={detail}
        camera={camera}
        say={say}
        meter={meter}
        onStop={() => {
          setRunning(null);
          change.mutate({ act: "end", ended: true });
        }}
      />
    );
  }
  const filmed = session.takes.filter((take) => take.state === "filmed").length;
  return (
    <>
      <header className="flex flex-wrap items-baseline gap-x-4 gap-y-2 px-4 pt-4 pb-3 sm:px-8">
        <h1 className="title text-title leading-tight">{session.name}</h1>
        <p className="text-stone">
          {filmed} of {format.takes(session.takes.length)} filmed ·{" "}
          {Math.round(session.plan.total_s / 60)} minutes · {format.when(session.made_at).day}
        </p>
        {elsewhere && <p className="text-note">Runs on {stage?.by}.</p>}
        {open && (
          <div className="ml-auto">
            <Button look="main" onClick={start}>
              {elsewhere
                ? `Follow it on this screen`
                : session.accepted_at === null
                  ? "I have read the cautions: begin"
                  : filmed > 0
                    ? "Go on"
                    : "Begin"}{" "}
              <Key>Enter</Key>
            </Button>
          </div>
        )}
      </header>
      {change.error && <FaultView error={change.error} />}
      {open && <RunChoices choices={choices} />}
      {open && <Cautions cautions={session.plan.cautions} />}
      <SessionFiles detail={detail} />
      {session.takes.some((take) => take.take_id !== null) && (
        <p className="px-4 py-3 sm:px-8">
          <Link
            to={`/takes/compare?session=${session.id}`}
            className="text-note font-semibold underline"
          >
            Settle its takes side by side
          </Link>
        </p>
      )}
      {(filmed > 0 || slated) && <Filing detail={detail} />}
      <Outcome detail={detail} />
    </>
  );
}

const NONE = "none";

function Outcome({ detail }: { detail: SessionDetail }) {
  const { session, drills } = detail;
  const fileAll = useFile(detail);
  const newest = useTakes({ sort: "recorded", descending: true }).data?.pages[0]?.takes ?? [];
  const loose = useProposals(session.id).data?.films ?? [];
  const films = new Map([
    ...newest.map((one) => [one.id, one.name] as const),
    ...loose.map((one) => [one.take_id, one.name] as const),
  ]);
  const file = (take: SessionTake, id: string) =>
    fileAll([{ position: take.position, take_id: id === NONE ? null : Number(id) }]);
  return (
    <section aria-label="Takes of the session" className="px-4 py-4 sm:px-8">
      {session.plan.blocks.map((block, index) => {
        const drill = drills[block.drill_key];
        return (
          <div key={index} className="mb-4">
            <h2 className="font-semibold">
              {drill?.name ?? block.drill_key}{" "}
              <span className="font-normal text-stone">
                passes at gust {format.gust(drill?.target)} · {block.reasons.join(" · ")}
              </span>
            </h2>
            <ul>
              {session.takes
                .filter((take) => take.block === index)
                .map((take) => (
                  <li
                    key={take.position}
                    className="grid grid-cols-[28px_minmax(0,1fr)_minmax(0,1fr)] items-center gap-3 border-b border-line py-1 sm:grid-cols-[28px_200px_90px_1fr_auto]"
                    data-testid={`planned-${take.position}`}
                  >
                    <span className="text-stone">{take.position + 1}</span>
                    <span className="truncate">
                      {drill?.variations.find((one) => one.key === take.variation_key)?.name}
                    </span>
                    <span className="hidden text-stone sm:block">{take.state}</span>
                    <Result take={take} target={drill?.target ?? null} />
                    <Select
                      label={`Film of take ${take.position + 1}`}
                      value={take.take_id === null ? NONE : String(take.take_id)}
                      options={[
                        { value: NONE, words: "No film" },
                        ...(take.take_id !== null && !films.has(take.take_id)
                          ? [{ value: String(take.take_id), words: take.take_name ?? "" }]
                          : []),
                        ...[...films].map(([value, words]) => ({ value: String(value), words })),
                      ]}
                      onChange={(id) => file(take, id)}
                    />
                  </li>
                ))}
            </ul>
          </div>
        );
      })}
    </section>
  );
}

function Result({ take, target }: { take: SessionTake; target: number | null }) {
  const notes = [
    take.felt && `felt ${take.felt}`,
    take.fatigue !== null && `tired ${take.fatigue}`,
    take.tension !== null && `strap ${take.tension}`,
  ].filter(Boolean);
  const passed = take.gust !== null && target !== null && take.gust <= target;
  return (
    <span className="col-span-2 col-start-2 row-start-2 text-note sm:col-span-1 sm:col-start-auto sm:row-start-auto">
      {take.gust !== null && take.take_id !== null && (
        <Link to={`/takes/${take.take_id}`} className="font-semibold underline">
          gust {format.gust(take.gust)}, {passed ? "within" : "over"} the drill’s{" "}
          {format.gust(target)}
        </Link>
      )}{" "}
      <span className="text-stone sm:hidden">{take.take_id === null && `${take.state} `}</span>
      <span className="text-stone">{notes.join(" · ")}</span>
    </span>
  );
}
