import { useEffect, useRef, type ReactNode } from "react";
import { Link, useNavigate } from "react-router";
import { useOutings } from "../../api/outings";
import { useSessions } from "../../api/practice";
import { useStatus } from "../../api/takes";
import { useKeys } from "../../keys/useKeys";
import { Arrivals, useImports } from "../takes/door";
import { BigButton } from "../../ui/BigButton";
import { LastTakes } from "./LastTakes";

/** What the shooter needs outdoors, one thumb's way each: the phone's own first page. */
export function FieldPage() {
  const navigate = useNavigate();
  const status = useStatus();
  const sessions = useSessions().data?.sessions ?? [];
  const next = sessions.find((one) => one.takes.some((take) => take.state === "planned"));
  const outing = useOutings().data?.outings.find((one) => one.open > 0);
  const films = useRef<HTMLInputElement>(null);
  const { add } = useImports();
  useEffect(() => {
    document.title = "In the field · Ridgewind";
  }, []);
  const go = (to: string) => () => void navigate(to);
  useKeys({
    "Live steadiness": { l: go("/field/live") },
    "Good enough?": { g: go("/field/check") },
    "Send films": { s: () => films.current?.click() },
    ...(outing && { "The shots of the outing": { o: go(`/sequence/${outing.id}/spot`) } }),
    ...(next && { "Open the session": { Enter: go(`/practice/${next.id}`) } }),
  });
  return (
    <>
      <header className="border-b border-line px-4 pt-4 pb-3 sm:px-8">
        <h1 className="title text-title leading-tight">In the field</h1>
        {status.data?.phone && <p className="text-note text-stone">{status.data.phone}</p>}
      </header>
      <Stratum
        name="Session"
        words={
          next
            ? `${next.name}: take ${1 + next.takes.filter((one) => one.state !== "planned").length} of ${next.takes.length} is next.`
            : "No session waits. Plan one, here or on the computer."
        }
      >
        {next ? (
          <>
            <BigLink main to={`/practice/${next.id}`}>
              Run it
            </BigLink>
            <BigLink to={`/practice/${next.id}/slates`}>Slates</BigLink>
          </>
        ) : (
          <BigLink main to="/plan">
            Plan a session
          </BigLink>
        )}
      </Stratum>
      {outing && (
        <Stratum
          name="Shots"
          words={`${outing.facts.name}: ${outing.open} of ${outing.shots} to film.`}
        >
          <BigLink to={`/sequence/${outing.id}/spot`}>Its shots</BigLink>
        </Stratum>
      )}
      <Stratum name="Live" words="Gust while you hold, seen and heard.">
        <BigLink to="/field/live">Meter</BigLink>
        <BigLink to="/field/rig">On the rig</BigLink>
      </Stratum>
      <Stratum name="Good enough?" words="One clip, judged here and now.">
        <BigLink to="/field/check">Judge a clip</BigLink>
      </Stratum>
      <Stratum name="Send films" words="They find their takes by slate and clock.">
        <input
          ref={films}
          type="file"
          accept="video/*"
          multiple
          aria-label="Films to send"
          className="sr-only"
          onChange={(event) => {
            add(event.target.files ?? []);
            event.target.value = "";
          }}
        />
        <BigButton onClick={() => films.current?.click()}>Choose films</BigButton>
      </Stratum>
      <Arrivals />
      <LastTakes />
    </>
  );
}

function Stratum({ name, words, children }: { name: string; words: string; children: ReactNode }) {
  return (
    <section
      aria-label={name}
      className="flex flex-wrap items-center gap-x-6 gap-y-2 border-b border-line px-4 py-3 sm:px-8"
    >
      <div className="min-w-[200px] flex-1">
        <h2 className="title text-heading">{name}</h2>
        <p className="text-note text-stone">{words}</p>
      </div>
      <div className="flex gap-2">{children}</div>
    </section>
  );
}

function BigLink({ to, main = false, children }: { to: string; main?: boolean; children: string }) {
  return (
    <Link
      to={to}
      className={`rounded inline-flex min-h-[52px] items-center border px-5 text-lead font-semibold ${main ? "border-ink bg-ink text-paper" : "border-ridge-2"}`}
    >
      {children}
    </Link>
  );
}
