import { useEffect, useMemo, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import type { RemedyLine, TakeDetail } from "../../api/client";
import { useChangeBrief, useChangeTake, usePath, useTake } from "../../api/takes";
import { FaultView } from "../../ui/FaultView";
import { useKeys } from "../../ui/useKeys";
import { useDelete } from "../takes/useDelete";
import { Button } from "../../ui/Button";
import { Key } from "../../ui/Key";
import { Bands } from "./Bands";
import { Causes } from "./Causes";
import { LogNotes } from "./LogNotes";
import { MoveNotes } from "./MoveNotes";
import { NoPicture } from "./NoPicture";
import { Spectrum } from "./Spectrum";
import { BriefStrip } from "./BriefStrip";
import { GustFigure } from "./GustFigure";
import { NotMeasured } from "./NotMeasured";
import { Player } from "./Player";
import { Playhead, PlayheadContext } from "./playhead";
import { Remedies } from "./Remedies";
import { RidgeTrace } from "./RidgeTrace";
import { SetupStrip } from "./SetupStrip";
import { ShotNotes } from "./ShotNotes";
import { TakeHead } from "./TakeHead";

const SECOND = 1;

/** One take: picture, ridge, decision, bands and the brief, all in step. */
export function TakePage() {
  const id = Number(useParams()["id"]);
  const found = useTake(id);
  if (found.error) return <FaultView error={found.error} />;
  if (!found.data) return <p className="p-8 text-stone">Reading the take…</p>;
  return <LoadedTake key={found.data.take.id} detail={found.data} />;
}

function LoadedTake({ detail }: { detail: TakeDetail }) {
  const { take, brief, clip, judgement } = detail;
  const [playhead] = useState(() => new Playhead());
  const [finer, setFiner] = useState(false);
  const from = detail.part?.from_s;
  useEffect(() => {
    if (from !== undefined) playhead.seek(from);
  }, [playhead, from]);
  const path = usePath(take.id, judgement !== null);
  const changeBrief = useChangeBrief(take.id);
  const changeTake = useChangeTake(take.id);
  const fault = changeBrief.error ?? changeTake.error;
  const navigate = useNavigate();
  const remove = useDelete();
  useEffect(() => {
    document.title = `${take.name} · Ridgewind`;
  }, [take.name]);

  const play = (remedy: RemedyLine) => {
    if (remedy.start_s === null || remedy.end_s === null) return;
    playhead.setLoop({ from: remedy.start_s, to: remedy.end_s }, remedy.rate);
  };
  const go = (to: number | null) => to !== null && void navigate(`/takes/${to}`);
  const lee = judgement?.lee;
  const fps = clip?.fps ?? 25;
  useKeys({
    " ": () => playhead.toggle(),
    ArrowRight: () => playhead.step(1, fps),
    ArrowLeft: () => playhead.step(-1, fps),
    "Shift+ArrowRight": () => playhead.seek(playhead.time() + SECOND),
    "Shift+ArrowLeft": () => playhead.seek(playhead.time() - SECOND),
    Home: () => playhead.seek(0),
    c: () => lee && playhead.setLoop(playhead.loop() ? null : { from: lee.start_s, to: lee.end_s }),
    Enter: () => {
      const chosen = judgement?.remedies.find((r) => r.remedy === judgement.verdict);
      if (chosen) play(chosen);
    },
    ArrowUp: () => go(detail.before_id),
    ArrowDown: () => go(detail.after_id),
    Delete: () => {
      remove(take);
      void navigate("/takes");
    },
    s: () => setFiner((now) => !now),
    Escape: () => void navigate("/takes"),
  });
  const playheadValue = useMemo(() => playhead, [playhead]);

  return (
    <PlayheadContext value={playheadValue}>
      <div className="flex flex-col">
        <TakeHead detail={detail} onDelete={() => (remove(take), void navigate("/takes"))} />
        {clip && judgement ? (
          <>
            <div className="order-last flex flex-wrap items-center gap-x-3.5 gap-y-2 px-4 pb-3 sm:px-8 md:order-none">
              <BriefStrip
                detail={detail}
                target={judgement.target}
                onChange={(next) => changeBrief.mutate(next)}
                onPoint={(next) => changeTake.mutate(next)}
              />
              <SetupStrip detail={detail} onPoint={(next) => changeTake.mutate(next)} />
            </div>
            {fault && <FaultView error={fault} />}
            <div className="grid grid-cols-1 gap-x-7 gap-y-5 px-4 pb-4 sm:px-8 md:grid-cols-[minmax(0,1fr)_214px] xl:grid-cols-[498px_206px_minmax(0,1fr)]">
              {clip.from_log ? (
                <NoPicture path={path.data} seconds={clip.duration_s} />
              ) : (
                <Player id={take.id} clip={clip} judgement={judgement} path={path.data} />
              )}
              <GustFigure judgement={judgement} brief={brief} />
              <div className="md:col-span-2 xl:col-span-1">
                <Remedies judgement={judgement} onPlay={play} />
              </div>
            </div>
            {detail.part && (
              <p className="px-4 pb-3 text-note sm:px-8">
                <span className="border-l-2 border-lamp pl-3">
                  Judged from {detail.part.from_s.toFixed(1)} to {detail.part.to_s.toFixed(1)} s
                  {detail.part.trimmed ? (
                    <>
                      : its slate and count-in are left out.{" "}
                      <button
                        type="button"
                        className="font-semibold underline hover:text-ridge-4"
                        onClick={() => changeTake.mutate({ whole: true })}
                      >
                        Judge all of it
                      </button>
                    </>
                  ) : (
                    " of a film that holds several takes, split at its slates."
                  )}
                </span>
              </p>
            )}
            <ShotNotes clip={clip} judgement={judgement} />
            <RidgeTrace judgement={judgement} />
            <Causes judgement={judgement} />
            <MoveNotes id={take.id} judgement={judgement} />
            <div className="border-t border-line px-4 py-2.5 sm:px-8">
              <Button
                look="bare"
                className="-ml-[11px]"
                aria-expanded={finer}
                onClick={() => setFiner(!finer)}
              >
                {finer ? "Hide bands and spectrum" : "Bands and spectrum"} <Key>S</Key>
              </Button>
            </div>
            {finer && (
              <>
                <Bands bands={judgement.bands} />
                <Spectrum id={take.id} />
                <LogNotes detail={detail} />
              </>
            )}
          </>
        ) : (
          <NotMeasured take={take} focal={detail.focal_eq_mm} />
        )}
        <p className="px-4 pb-6 sm:px-8">
          <Link to="/takes" className="text-note text-stone underline hover:text-ink">
            All takes
          </Link>
        </p>
      </div>
    </PlayheadContext>
  );
}
