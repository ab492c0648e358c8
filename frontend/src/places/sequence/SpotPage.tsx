import { useQueries } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useNavigate, useParams } from "react-router";
import {
  shotSlateQuery,
  useLeftShotNotes,
  useOuting,
  useOutingChange,
  useShotNote,
  useShotNotesUnsent,
  type OutingDetail,
  type ShotItem,
} from "../../api/outings";
import { SmallBody } from "../../body/SmallBody";
import * as format from "../../formats";
import { BigButton } from "../../ui/BigButton";
import { FaultView } from "../../ui/FaultView";
import { useKeys } from "../../keys/useKeys";
import { Missing } from "./Missing";
import { ShotFrame } from "./ShotFrame";
import { Words } from "./Words";
import { besideFrame, DRILL_OF_MOVE, frameWords } from "./words";

/** On the spot: the next shot, its slate, what became of it, and what is still missing. */
export function SpotPage() {
  const id = Number(useParams()["id"]);
  const found = useOuting(id);
  if (found.isLoadingError) return <FaultView error={found.error} />;
  if (!found.data) return <p className="p-8 text-stone">Opening the shots…</p>;
  return <Spot key={id} detail={found.data} />;
}

function Spot({ detail }: { detail: OutingDetail }) {
  const navigate = useNavigate();
  const note = useShotNote(detail.id);
  const change = useOutingChange(detail.id);
  const unsent = useShotNotesUnsent(detail.id);
  useLeftShotNotes(detail.id);
  const ordered = detail.order.flatMap((id) => detail.shots.find((one) => one.id === id) ?? []);
  const slates = useQueries({ queries: ordered.map((one) => shotSlateQuery(one.id)) });
  const [wanted, setWanted] = useState<number | null>(null);
  const [slate, setSlate] = useState(false);
  const first = ordered.find((one) => one.state === "open") ?? ordered[0];
  const at = Math.max(
    0,
    ordered.findIndex((one) => one.id === (wanted ?? first?.id)),
  );
  const item = ordered[at];
  const open = ordered.filter((one) => one.state === "open").length;
  const step = (by: number) =>
    setWanted(ordered[Math.max(0, Math.min(ordered.length - 1, at + by))]?.id ?? null);
  const onwards = () => {
    const next = [...ordered.slice(at + 1), ...ordered.slice(0, at)];
    setWanted(next.find((one) => one.state === "open")?.id ?? item?.id ?? null);
  };
  const say = (state: ShotItem["state"], got?: number) => {
    if (!item) return;
    note.mutate({ shot: item.id, note: { state, ...(got !== undefined && { got }) } });
  };
  const gotIt = () => {
    if (!item) return;
    const got = item.got + 1;
    const enough = got >= item.shot.takes;
    say(enough ? "got" : "open", got);
    if (enough) onwards();
  };
  const again = () => item && say("open", item.got);
  const impossible = () => {
    say("impossible");
    onwards();
  };
  useEffect(() => {
    document.title = `On the spot: ${detail.facts.name} · Ridgewind`;
  }, [detail.facts.name]);
  useKeys({
    "Got it": { g: gotIt, Enter: gotIt },
    Again: { a: again },
    "Not possible": { x: impossible },
    "Its slate": { s: () => setSlate((on) => !on) },
    "The next shot, the one before": { ArrowRight: () => step(1), ArrowLeft: () => step(-1) },
    "Back to the outing": {
      Escape: () => (slate ? setSlate(false) : void navigate(`/sequence/${detail.id}`)),
    },
  });
  if (!item) return <p className="p-8 text-stone">This outing has no shots yet.</p>;
  const code = slates[at]?.data;
  if (slate) {
    return (
      <button
        type="button"
        onClick={() => setSlate(false)}
        aria-label="Close the slate"
        className="fixed inset-0 z-(--layer-page) flex flex-col items-center justify-center bg-[#fff] text-[#000]"
      >
        {code && <img src={code} alt={`Code of ${item.shot.subject}`} className="w-[96vmin]" />}
        <span className="px-3 text-lead font-semibold">{item.shot.subject}</span>
      </button>
    );
  }
  const { shot } = item;
  return (
    <div
      className="flex min-h-[calc(100dvh-var(--trail))] flex-col"
      data-testid="spot"
      data-ready={slates.every((one) => one.isSuccess)}
    >
      <header className="flex items-baseline gap-3 px-4 pt-3 pb-2 sm:px-8">
        <h1 className="title text-heading">{detail.facts.name}</h1>
        <p className="text-note text-stone" role="status">
          {open === 0 ? "All shots are done." : `${open} of ${ordered.length} to film`}
          {unsent && ". The computer does not answer; your notes are kept here"}
        </p>
      </header>
      <section aria-label="The next shot" className="flex-1 px-4 sm:px-8">
        <div className="mx-auto max-w-[560px]">
          <ShotFrame shot={shot} words={frameWords(shot, item.move_words)} />
          <div className="mt-2 flex gap-3">
            <SmallBody drill={DRILL_OF_MOVE[shot.move]} className="h-24 w-24" />
            <div className="min-w-0 flex-1">
              <p className="text-heading leading-tight font-semibold" data-testid="spot-subject">
                {shot.subject}
              </p>
              <p className="text-lead">
                {[
                  shot.size,
                  item.move_words,
                  format.seconds(item.filmed_s),
                  ...besideFrame(shot),
                ].join(" · ")}
              </p>
              <p className="text-note text-stone">
                {[
                  shot.enters ? "Hold still: the movement comes in." : "",
                  shot.foreground ? `${shot.foreground} near in front.` : "",
                  shot.place ? `At ${shot.place}.` : "",
                  item.got > 0 ? `Got ${item.got} of ${shot.takes}.` : "",
                ].join(" ")}
              </p>
            </div>
          </div>
          <Words
            key={item.id}
            label="Note"
            value={item.note}
            onChange={(text) => note.mutate({ shot: item.id, note: { note: text } })}
          />
        </div>
      </section>
      <Missing
        gaps={detail.gaps}
        onWave={(gap, waved) => change.mutate({ act: "wave", key: gap.key, waved })}
      />
      <footer className="sticky bottom-0 flex flex-wrap justify-center gap-2 border-t border-line bg-paper px-4 py-2">
        <BigButton main hint="G" onClick={gotIt}>
          Got it
        </BigButton>
        <BigButton hint="A" onClick={again}>
          Again
        </BigButton>
        <BigButton hint="X" onClick={impossible}>
          Not possible
        </BigButton>
        <BigButton hint="S" onClick={() => setSlate(true)}>
          Slate
        </BigButton>
        <BigButton hint="←" aria-label="The shot before" onClick={() => step(-1)}>
          ‹
        </BigButton>
        <BigButton hint="→" aria-label="The next shot" onClick={() => step(1)}>
          ›
        </BigButton>
      </footer>
    </div>
  );
}
