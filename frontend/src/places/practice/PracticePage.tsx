import { useEffect } from "react";
import { Link, useNavigate } from "react-router";
import { useDrills, useSessions, type SessionItem } from "../../api/practice";
import { SmallBody } from "../../body/SmallBody";
import * as format from "../../formats";
import { FirstLookButton } from "../plan/door";
import { Button } from "../../ui/Button";
import { FaultView } from "../../ui/FaultView";
import { Key } from "../../keys/Key";
import { useKeys } from "../../keys/useKeys";

/** Sessions: the one to run, and those that were. */
export function PracticePage() {
  const found = useSessions();
  const navigate = useNavigate();
  const sessions = found.data?.sessions ?? [];
  const next = sessions.find((one) => one.takes.some((take) => take.state === "planned"));
  useEffect(() => {
    document.title = "Practice · Ridgewind";
  }, []);
  useKeys({
    "Live steadiness": { l: () => void navigate("/field/live") },
    "Plan a session": { n: () => void navigate("/plan") },
    "Open the next one": { Enter: () => next && void navigate(`/practice/${next.id}`) },
  });
  if (found.isLoadingError) return <FaultView error={found.error} />;
  return (
    <>
      <header className="flex flex-wrap items-baseline gap-x-4 gap-y-2 px-4 pt-4 pb-3 sm:px-8">
        <h1 className="title text-title leading-tight">Practice</h1>
        <div className="ml-auto flex gap-2">
          <Button onClick={() => void navigate("/field/live")}>
            Live meter <Key>L</Key>
          </Button>
          <Button look="main" onClick={() => void navigate("/plan")}>
            Plan a session <Key>N</Key>
          </Button>
        </div>
      </header>
      {found.data && sessions.length === 0 && (
        <div className="mx-auto max-w-xl px-4 py-12">
          <h2 className="title mb-2 text-title">Plan today’s session first</h2>
          <p className="text-stone">
            Say how many minutes you have, where you are and what is in the bag. Ridgewind chooses
            drills, orders them so that tired muscles are spared, and runs them by sound: both hands
            stay on the camera.
          </p>
          <p className="mt-4 mb-3 text-stone">Or begin with a first look at your own hand.</p>
          <FirstLookButton />
        </div>
      )}
      <ul className="border-t border-line">
        {sessions.map((session) => (
          <SessionRow key={session.id} session={session} />
        ))}
      </ul>
    </>
  );
}

/** Drills whose bodies are drawn beside a session's name. */
const MOST_BODIES = 4;

function SessionRow({ session }: { session: SessionItem }) {
  const drills = useDrills().data?.drills ?? [];
  const practised = [...new Set(session.plan.blocks.map((block) => block.drill_key))];
  const named = practised.map(
    (key) => drills.find(({ drill }) => drill.key === key)?.drill.name ?? key,
  );
  const filmed = session.takes.filter((take) => take.state === "filmed").length;
  const when = format.when(session.made_at);
  return (
    <li className="relative flex items-center gap-4 border-b border-line px-4 py-3 hover:bg-paper sm:px-8">
      <div className="min-w-0 flex-1">
        <Link to={`/practice/${session.id}`} className="font-semibold after:absolute after:inset-0">
          {session.name}
        </Link>
        <p className="text-small text-stone">
          {when.day}, {when.time} · {Math.round(session.plan.total_s / 60)} min
        </p>
        <p className="truncate text-small">{named.join(" · ")}</p>
      </div>
      <div className="hidden gap-1 sm:flex">
        {practised.slice(0, MOST_BODIES).map((key) => (
          <SmallBody key={key} drill={key} className="h-12 w-12" />
        ))}
      </div>
      <span className="figure-narrow w-24 flex-none text-right text-title leading-none">
        {filmed}
        <span className="text-lead text-stone"> of {format.takes(session.takes.length)}</span>
      </span>
    </li>
  );
}
