import { useEffect, useMemo, useState } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import type { Choice } from "../../../api/decisions";
import { useComparison, type CompareQuery, type Group, type Side } from "../../../api/compare";
import { FaultView } from "../../../ui/FaultView";
import { Key } from "../../../keys/Key";
import { LoopedFilm } from "../../../ui/LoopedFilm";
import { Segments } from "../../../ui/Segments";
import { useKeys } from "../../../keys/useKeys";
import { nextOpen, type Alignment } from "./align";
import { GroupView } from "./GroupView";
import { LookActs } from "./LookActs";
import { useSettle } from "./useSettle";

const ALIGNMENTS = [
  { value: "start", words: "Start" },
  { value: "move", words: "Move" },
] as const;

/** Takes side by side: see them, settle them by key, and know what is still missing. */
export function ComparePage() {
  const [params] = useSearchParams();
  const found = useComparison(queryOf(params));
  const title = found.data?.title;
  useEffect(() => {
    document.title = `${title ?? "Side by side"} · Ridgewind`;
  }, [title]);
  if (found.isLoadingError) return <FaultView error={found.error} />;
  if (!found.data) return <p className="p-8 text-stone">Reading the takes…</p>;
  return <Loaded title={found.data.title} groups={found.data.groups} />;
}

function Loaded({ title, groups }: { title: string; groups: Group[] }) {
  const sides = useMemo(() => groups.flatMap((group) => group.sides), [groups]);
  const [chosen, setChosen] = useState(0);
  const [alignment, setAlignment] = useState<Alignment>("start");
  const [playing, setPlaying] = useState(false);
  const settle = useSettle();
  const navigate = useNavigate();
  const current = sides[chosen];
  const go = (to: number) => setChosen(Math.max(0, Math.min(sides.length - 1, to)));
  const choose = (choice: Choice) => {
    if (!current) return;
    settle(current.take, current.take.choice === choice ? null : choice);
    if (current.take.choice !== choice) go(nextOpen(sides, chosen));
  };
  useKeys({
    "Choose a take": { ArrowUp: () => go(chosen - 1), ArrowDown: () => go(chosen + 1) },
    "First or last take": { Home: () => go(0), End: () => go(sides.length - 1) },
    "Keep it": { k: () => choose("keep") },
    "Reject it": { d: () => choose("reject") },
    "Film it again": { a: () => choose("retake") },
    "Play or pause it": { " ": () => setPlaying((now) => !now) },
    "Align starts or moves": {
      l: () => setAlignment((now) => (now === "start" ? "move" : "start")),
    },
    "Open it": { Enter: () => current && void navigate(`/takes/${current.take.id}`) },
    Back: { Escape: () => void navigate(-1) },
  });
  const open = sides.filter((side) => side.take.choice === null).length;
  return (
    <>
      <header className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-line px-4 pt-4 pb-3 sm:px-8">
        <h1 className="title text-title leading-tight">{title}</h1>
        <p className="text-stone" aria-live="polite">
          {sides.length} takes, {open === 0 ? "all settled" : `${open} to settle`}
          {current && <span className="sr-only">. Chosen: {current.take.name}</span>}
        </p>
        <span className="flex items-center gap-2 sm:ml-auto">
          <span className="label-wide" aria-hidden="true">
            Aligned at
          </span>
          <Segments
            label="Aligned at"
            value={alignment}
            options={ALIGNMENTS}
            onChange={setAlignment}
          />
          <Key>L</Key>
        </span>
      </header>
      {sides.length === 0 ? (
        <p className="p-8 text-stone">
          No film is filed here yet.{" "}
          <Link to="/takes" className="underline">
            Bring clips in
          </Link>
          , then file them under their takes.
        </p>
      ) : (
        <div className="grid grid-cols-1 lg:grid-cols-[minmax(0,1fr)_320px]">
          <div>
            {groups.map((group) => (
              <GroupView
                key={group.title}
                group={group}
                chosen={current?.take.id ?? null}
                alignment={alignment}
                onChoose={(id) => go(sides.findIndex((side) => side.take.id === id))}
                onSettle={(side, choice) =>
                  settle(side.take, side.take.choice === choice ? null : choice)
                }
              />
            ))}
          </div>
          {current && <Look side={current} playing={playing} onPlaying={setPlaying} />}
        </div>
      )}
    </>
  );
}

type LookProps = { side: Side; playing: boolean; onPlaying: (playing: boolean) => void };

/** The chosen take's picture. */
function Look({ side, playing, onPlaying }: LookProps) {
  const { take, part } = side;
  return (
    <aside
      aria-label="Chosen take"
      className="order-first border-line p-4 lg:sticky lg:top-0 lg:order-none lg:self-start lg:border-l"
    >
      {take.state === "done" && take.pictured && (
        <LoopedFilm
          src={`/api/takes/${take.id}/film`}
          from={part.from_s}
          to={part.to_s}
          playing={playing}
          label={take.name}
          poster={`/api/takes/${take.id}/still`}
          className="rounded aspect-video w-full bg-ridge-5 object-contain"
        />
      )}
      <LookActs id={take.id} pictured={take.pictured} playing={playing} onPlaying={onPlaying} />
    </aside>
  );
}

function queryOf(params: URLSearchParams): CompareQuery {
  const [session, drill, takes] = ["session", "drill", "takes"].map((name) => params.get(name));
  if (session) return { session: Number(session) };
  if (drill) return { drill };
  return { takes: takes ?? "" };
}
