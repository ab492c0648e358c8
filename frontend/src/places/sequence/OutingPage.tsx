import { useEffect, useRef, useState } from "react";
import { Link, useParams } from "react-router";
import {
  useOuting,
  useOutingChange,
  type OutingChange,
  type OutingDetail,
} from "../../api/outings";
import * as format from "../../formats";
import { Key } from "../../keys/Key";
import { useKeys } from "../../keys/useKeys";
import { Button } from "../../ui/Button";
import { FaultView } from "../../ui/FaultView";
import { Segments } from "../../ui/Segments";
import { useTelling } from "../../ui/useTelling";
import { Missing } from "./Missing";
import { OutingFactsDialog } from "./OutingFactsDialog";
import { OutingTabs } from "./OutingTabs";
import { ShotEditor } from "./ShotEditor";
import { ShotTakes } from "./ShotTakes";
import { ShotStrip } from "./ShotStrip";
import { moved } from "./strip";

/** One outing: its shots drawn in order, written in plain words, and what is missing. */
export function OutingPage() {
  const id = Number(useParams()["id"]);
  const found = useOuting(id);
  if (found.isLoadingError) return <FaultView error={found.error} />;
  if (!found.data) return <p className="p-8 text-stone">Opening the outing…</p>;
  return <Loaded key={id} detail={found.data} />;
}

const ORDERS = [
  { value: "screen", words: "As on screen" },
  { value: "film", words: "As to film" },
] as const;

function Loaded({ detail }: { detail: OutingDetail }) {
  const { shots, facts } = detail;
  const change = useOutingChange(detail.id);
  const tell = useTelling();
  const [order, setOrder] = useState<"screen" | "film">("screen");
  const [wanted, setWanted] = useState<number | null>(null);
  const [asking, setAsking] = useState(false);
  const line = useRef<HTMLInputElement>(null);
  const ids = shots.map((one) => one.id);
  const shown =
    order === "screen"
      ? shots
      : detail.order.flatMap((id) => shots.find((one) => one.id === id) ?? []);
  const place = shots.findIndex((one) => one.id === wanted);
  const chosen = shots[place];
  const step = (by: number) => {
    const at = shown.findIndex((one) => one.id === wanted);
    const next = shown[Math.max(0, Math.min(shown.length - 1, at + by))];
    if (next) setWanted(next.id);
  };
  const reorder = (next: number[]) => change.mutate({ act: "order", ids: next, base: ids });
  const shift = (by: number) => {
    const to = place + by;
    if (chosen && to >= 0 && to < ids.length) reorder(moved(ids, place, to));
  };
  const takeOut = () => {
    if (!chosen) return;
    const left = ids.filter((id) => id !== chosen.id);
    const order = (next: number[], base: number[]): OutingChange => ({
      act: "order",
      ids: next,
      base,
    });
    setWanted(null);
    tell(change, order(left, ids), {
      text: `Taken out: ${chosen.shot.subject}.`,
      undo: order(ids, left),
    });
  };
  useEffect(() => {
    document.title = `${facts.name} · Ridgewind`;
  }, [facts.name]);
  useKeys({
    "Write the next shot": { n: () => line.current?.focus() },
    "The next shot, the one before": { ArrowRight: () => step(1), ArrowLeft: () => step(-1) },
    ...(chosen &&
      order === "screen" && {
        "Move the shot later, earlier": { "]": () => shift(1), "[": () => shift(-1) },
      }),
    ...(chosen && { "Take the shot out": { Delete: takeOut, Backspace: takeOut } }),
    "As on screen, as to film": { o: () => setOrder(order === "screen" ? "film" : "screen") },
    "Place, day and light": { e: () => setAsking(true) },
    ...(chosen && { "Close the shot": { Escape: () => setWanted(null) } }),
  });
  const gaps = detail.gaps.filter((gap) => !gap.waved);
  const marked = new Set(gaps.filter((gap) => gap.shots.length <= 2).flatMap((gap) => gap.shots));
  const told = [facts.place, facts.day && format.when(facts.day).day, facts.light];
  return (
    <>
      <OutingTabs id={detail.id} />
      <header className="flex flex-wrap items-baseline gap-x-4 gap-y-1 px-4 pt-4 pb-2 sm:px-8">
        <h1 className="title text-title leading-tight">{facts.name}</h1>
        <button
          type="button"
          className="text-stone underline decoration-line underline-offset-4 hover:text-ink"
          onClick={() => setAsking(true)}
        >
          {told.filter(Boolean).join(", ") || "Say where and when"}
        </button>
        {shots.length > 0 && (
          <span className="ml-auto flex flex-wrap gap-2">
            <Link to={`/sequence/${detail.id}/sheet`} className="px-2 py-1.5 text-note underline">
              On paper
            </Link>
            <Link
              to={`/sequence/${detail.id}/spot`}
              className="rounded border border-ink bg-ink px-3 py-1.5 text-note font-semibold text-paper"
            >
              On the spot
            </Link>
          </span>
        )}
      </header>
      {change.error && <FaultView error={change.error} />}
      <LineEntry
        input={line}
        onLine={(text, done) => change.mutate({ act: "line", line: text }, { onSuccess: done })}
      />
      {shots.length > 0 && (
        <>
          <div className="flex flex-wrap items-center gap-x-4 gap-y-1 px-4 pb-3 text-note sm:px-8">
            <Segments label="Order" value={order} options={ORDERS} onChange={setOrder} />
            <span className="text-stone">
              {order === "screen"
                ? `${format.counted(shots.length, "shot")}, ${format.seconds(detail.total_s)} on screen, ${format.seconds(detail.filmed_s)} to film`
                : `${format.counted(detail.walks, "walk")} from place to place, ${format.counted(detail.set_ups, "set-up")}`}
            </span>
          </div>
          <div className="px-4 pb-2 sm:px-8">
            <ShotStrip
              shots={shown}
              chosen={chosen?.id ?? null}
              marked={marked}
              onChoose={setWanted}
              {...(order === "screen" && { onOrder: reorder })}
            />
          </div>
        </>
      )}
      {chosen && (
        <>
          <ShotEditor
            key={chosen.id}
            item={chosen}
            place={place}
            brief_id={facts.brief_id}
            onChange={(shot) =>
              change.mutate({ act: "shot", id: chosen.id, shot, base: chosen.shot })
            }
          />
          <p className="flex gap-2 border-b border-line bg-paper px-4 pb-3 sm:px-8">
            <Button onClick={() => shift(-1)}>
              Earlier <Key>[</Key>
            </Button>
            <Button onClick={() => shift(1)}>
              Later <Key>]</Key>
            </Button>
            <Button onClick={takeOut}>
              Take it out <Key>Del</Key>
            </Button>
          </p>
        </>
      )}
      {shots.length > 0 && <ShotTakes detail={detail} />}
      {shots.length > 0 && (
        <Missing
          gaps={detail.gaps}
          onWave={(gap, waved) => change.mutate({ act: "wave", key: gap.key, waved })}
          onShow={(gap) => setWanted(gap.shots[0] ?? null)}
        />
      )}
      {asking && (
        <OutingFactsDialog
          facts={facts}
          onClose={() => setAsking(false)}
          onKeep={(next) => change.mutate({ act: "facts", facts: next })}
        />
      )}
    </>
  );
}

type LineProps = {
  input: React.RefObject<HTMLInputElement | null>;
  onLine: (line: string, done: () => void) => void;
};

/** The next shot, in plain words. */
function LineEntry({ input, onLine }: LineProps) {
  const [text, setText] = useState("");
  return (
    <form
      className="flex flex-wrap items-center gap-2 px-4 pb-3 sm:px-8"
      onSubmit={(event) => {
        event.preventDefault();
        if (text.trim()) onLine(text, () => setText(""));
      }}
    >
      <input
        ref={input}
        aria-label="The next shot, in plain words"
        placeholder="wide of the mill, low, pan left 6 s, gate in front"
        value={text}
        onChange={(event) => setText(event.target.value)}
        className="rounded h-[38px] min-w-0 flex-1 basis-[280px] border border-control bg-paper px-3 text-lead outline-none placeholder:text-stone focus:border-ink"
      />
      <Button look="main" type="submit" disabled={!text.trim()}>
        Add the shot <Key>Enter</Key>
      </Button>
    </form>
  );
}
