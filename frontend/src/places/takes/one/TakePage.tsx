import { lazy, Suspense, useEffect, useRef, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import type { RemedyLine, TakeDetail } from "../../../api/client";
import { useMark, useRemedyDetails } from "../../../api/decisions";
import { useChanged } from "../../../api/keys";
import { useChangeBrief, useChangeTake, usePath, useTake } from "../../../api/takes";
import { FaultView } from "../../../ui/FaultView";
import { useTelling } from "../../../ui/useTelling";
import { PreviewPanel } from "../preview/PreviewPanel";
import { useDelete } from "../list/useDelete";
import { Button } from "../../../ui/Button";
import { Key } from "../../../keys/Key";
import { Bands } from "./Bands";
import { Causes } from "./Causes";
import { LikeExample } from "./LikeExample";
import { LogNotes } from "./LogNotes";
import { MoveNotes } from "./MoveNotes";
import { NoPicture } from "./NoPicture";
import { Spectrum } from "./Spectrum";
import { BriefStrip } from "./BriefStrip";
import { GustFigure } from "./GustFigure";
import { NotMeasured } from "./NotMeasured";
import { PartNote } from "./PartNote";
import { Player } from "./Player";
import { Playhead, PlayheadContext } from "./playhead";
import { NextTime, Remedies } from "./Remedies";
import { RidgeTrace } from "./RidgeTrace";
import { SetupStrip } from "./SetupStrip";
import { ShotNotes } from "./ShotNotes";
import { TakeHead } from "./TakeHead";
import { useTakeKeys } from "./useTakeKeys";
import { WhoseMotion } from "./WhoseMotion";

/** Loaded when a take is renamed. */
const RenameDialog = lazy(() =>
  import("./RenameDialog").then((room) => ({ default: room.RenameDialog })),
);

/** Loaded when a brief is made of it. */
const LikeItDialog = lazy(() =>
  import("./LikeItDialog").then((room) => ({ default: room.LikeItDialog })),
);

/** One take: picture, ridge, decision, bands and the brief, all in step. */
export function TakePage() {
  const id = Number(useParams()["id"]);
  const found = useTake(id);
  if (found.isLoadingError) return <FaultView error={found.error} />;
  if (!found.data) return <p className="p-8 text-stone">Reading the take…</p>;
  const { take } = found.data;
  return <LoadedTake key={take.id} detail={found.data} comes={take.id !== id} />;
}

/** Reads what hangs on the path anew when a take has been measured again. */
function useMeasuredAgain(state: TakeDetail["take"]["state"]) {
  const changed = useChanged();
  const before = useRef(state);
  useEffect(() => {
    if (state === "done" && before.current !== "done") changed("motion");
    before.current = state;
  }, [state, changed]);
}

/** comes: another take is on its way; what is still shown of this one is not acted on. */
function LoadedTake({ detail, comes }: { detail: TakeDetail; comes: boolean }) {
  const { take, brief, clip, judgement } = detail;
  const [playhead] = useState(() => new Playhead());
  const [previewHead] = useState(() => new Playhead());
  const [finer, setFiner] = useState(false);
  const [naming, setNaming] = useState(false);
  const [renaming, setRenaming] = useState(false);
  const [liking, setLiking] = useState(false);
  const [seen, setSeen] = useState<RemedyLine["remedy"] | null>(null);
  const from = detail.part?.from_s;
  useEffect(() => {
    if (from !== undefined) playhead.seek(from);
  }, [playhead, from]);
  const path = usePath(take.id, judgement !== null);
  useMeasuredAgain(take.state);
  const changeBrief = useChangeBrief(take.id);
  const changeTake = useChangeTake(take.id);
  const fault = changeBrief.error ?? changeTake.error;
  const settled = judgement !== null && judgement.verdict !== null;
  const details = useRemedyDetails(take.id, brief, settled);
  const mark = useMark();
  const tell = useTelling();
  const navigate = useNavigate();
  const remove = useDelete();
  useEffect(() => {
    document.title = `${take.name} · Ridgewind`;
  }, [take.name]);

  const play = (remedy: RemedyLine) => {
    if (remedy.start_s === null || remedy.end_s === null) return;
    if (remedy.corner_hz !== null) return setSeen(remedy.remedy);
    playhead.setLoop({ from: remedy.start_s, to: remedy.end_s }, remedy.rate);
  };
  const shown = clip?.from_log
    ? undefined
    : judgement?.remedies.find((remedy) => remedy.remedy === seen);
  const marking = (smooth: boolean) => {
    const was = detail.marked;
    const said = smooth ? "Marked smooth enough." : "Marked not smooth.";
    tell(
      mark,
      { id: take.id, smooth: was === smooth ? null : smooth },
      { text: was === smooth ? "Mark taken back." : said, undo: { id: take.id, smooth: was } },
    );
  };
  // Nothing else can be said of a take before this is answered: it is asked first.
  const isAsked = detail.doubts.some((one) => one.doubt !== null && !one.said);
  const whose = <WhoseMotion detail={detail} onName={() => setNaming(true)} />;
  const leave = () => (remove(take), void navigate("/takes"));
  useTakeKeys({
    detail,
    comes,
    playhead,
    previewing: shown !== undefined,
    onPlay: play,
    onPreview: setSeen,
    onMark: marking,
    onFiner: () => setFiner((now) => !now),
    onDelete: leave,
    onName: () => setRenaming(true),
    onLike: () => settled && setLiking(true),
  });
  return (
    <PlayheadContext value={playhead}>
      <div className="flex flex-col">
        <TakeHead detail={detail} onDelete={leave} onName={() => setRenaming(true)} />
        <Suspense>
          {liking && judgement && (
            <LikeItDialog take={take} part={detail.part} onClose={() => setLiking(false)} />
          )}
          {renaming && <RenameDialog take={take} onClose={() => setRenaming(false)} />}
        </Suspense>
        {clip && judgement ? (
          <>
            {isAsked && whose}
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
            <div className="grid grid-cols-1 gap-x-7 gap-y-5 px-4 pb-4 sm:px-8 md:grid-cols-[minmax(0,1fr)_214px] xl:grid-cols-[480px_190px_minmax(0,1fr)] xl:grid-rows-[auto_1fr]">
              {clip.from_log ? (
                <NoPicture path={path.data} seconds={clip.duration_s} />
              ) : (
                <Player
                  detail={detail}
                  clip={clip}
                  judgement={judgement}
                  path={path.data}
                  naming={naming}
                  onNaming={setNaming}
                />
              )}
              <GustFigure judgement={judgement} brief={brief} pictured={!clip.from_log} />
              <div className="md:col-span-2 xl:col-span-1 xl:row-span-2">
                <Remedies
                  judgement={judgement}
                  details={details.data}
                  shown={shown?.remedy ?? null}
                  marked={detail.marked}
                  pictured={!clip.from_log}
                  onPlay={play}
                  onPreview={(remedy) => setSeen((now) => (now === remedy ? null : remedy))}
                  onMark={marking}
                />
              </div>
              <div className="md:col-span-2">
                <NextTime details={details.data} />
              </div>
            </div>
            {shown && (
              <PlayheadContext value={previewHead}>
                <PreviewPanel
                  key={shown.remedy}
                  detail={detail}
                  remedy={shown}
                  onClose={() => setSeen(null)}
                />
              </PlayheadContext>
            )}
            {judgement.likeness && <LikeExample likeness={judgement.likeness} />}
            <PartNote detail={detail} />
            {!isAsked && whose}
            <ShotNotes clip={clip} judgement={judgement} captureFps={detail.capture_fps} />
            <RidgeTrace judgement={judgement} />
            {settled && <Causes judgement={judgement} />}
            <MoveNotes id={take.id} judgement={judgement} />
            <div className="flex flex-wrap items-center gap-y-1.5 border-t border-line px-4 py-2.5 sm:px-8">
              <Button
                look="bare"
                className="-ml-[11px]"
                aria-expanded={finer}
                onClick={() => setFiner(!finer)}
              >
                {finer ? "Hide bands and spectrum" : "Bands and spectrum"} <Key>S</Key>
              </Button>
              <a
                href={`/api/takes/${take.id}/path.csv`}
                download
                className="ml-4 py-1 text-note text-stone underline hover:text-ink"
              >
                The path, CSV
              </a>
              {settled && (
                <>
                  <Button look="bare" className="ml-2" onClick={() => setLiking(true)}>
                    A brief like it <Key>B</Key>
                  </Button>
                  <Link
                    to={`/findings/shot?like=${take.id}`}
                    className="ml-3 py-1 text-note text-stone underline hover:text-ink"
                  >
                    How do I get one like it?
                  </Link>
                </>
              )}
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
