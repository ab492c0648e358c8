import { useEffect, useState } from "react";
import { useNavigate, useParams } from "react-router";
import {
  useProposals,
  useLeftNotes,
  useSession,
  useSessionChange,
  type SessionDetail,
} from "../../api/practice";
import { isElsewhere, useStage } from "../../api/stage";
import { askForTurning } from "../../camera/motionSensor";
import * as format from "../../formats";
import { Button } from "../../ui/Button";
import { FaultView } from "../../ui/FaultView";
import { Key } from "../../keys/Key";
import type { KeyWords } from "../../keys/register";
import { useKeys } from "../../keys/useKeys";
import { Cautions } from "./Cautions";
import { Filing } from "./Filing";
import { Outcome } from "./Outcome";
import { RemoteView } from "./RemoteView";
import { RunChoices } from "./RunChoices";
import { RunnerView } from "./RunnerView";
import { SessionFiles } from "./SessionFiles";
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
  const navigate = useNavigate();
  const open = session.takes.some((take) => take.state === "planned");
  const films = session.takes.some((take) => take.take_id !== null);
  const settle = () => {
    if (films) void navigate(`/takes/compare?session=${session.id}`);
  };
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
  const settling = "Settle its takes side by side";
  const keys: KeyWords = open
    ? { "Begin or go on": { Enter: start }, [settling]: { s: settle } }
    : { [settling]: { Enter: settle } };
  useKeys(running ? {} : keys);
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
        <div className="ml-auto flex flex-wrap gap-2">
          {films && (
            <Button look={open ? "quiet" : "main"} onClick={settle}>
              {settling} <Key>{open ? "S" : "Enter"}</Key>
            </Button>
          )}
          {open && (
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
          )}
        </div>
      </header>
      {change.error && <FaultView error={change.error} />}
      {open && <RunChoices choices={choices} />}
      {open && <Cautions cautions={session.plan.cautions} />}
      {open && <SessionFiles detail={detail} open />}
      {(filmed > 0 || slated) && <Filing detail={detail} />}
      <Outcome detail={detail} />
      {!open && <SessionFiles detail={detail} open={false} />}
    </>
  );
}
