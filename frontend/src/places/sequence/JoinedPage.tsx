import { useEffect, useRef, useState } from "react";
import { useParams } from "react-router";
import {
  useJoined,
  useJoinedChange,
  useSequenceFilm,
  useSequenceFilmChange,
  type Joined,
  type Piece,
} from "../../api/joined";
import * as format from "../../formats";
import { useKeys } from "../../keys/useKeys";
import { Button } from "../../ui/Button";
import { FaultView } from "../../ui/FaultView";
import { useNotices } from "../../ui/notices";
import { useTelling } from "../../ui/useTelling";
import { BroughtBack } from "./BroughtBack";
import { CutPanel } from "./CutPanel";
import { LookStrip } from "./LookStrip";
import { OutingTabs } from "./OutingTabs";
import { PiecePanel } from "./PiecePanel";
import { trimmed, withPiece, withPieces } from "./pieces";
import { moved } from "./strip";
import { SeenFilm } from "./SeenFilm";
import { TakenAlong } from "./TakenAlong";
import { TimeLine, type Chosen } from "./TimeLine";

/** An outing's takes joined: in and out, speed and way of each, and how every cut joins. */
export function JoinedPage() {
  const id = Number(useParams()["id"]);
  const found = useJoined(id);
  if (found.isLoadingError) return <FaultView error={found.error} />;
  if (!found.data) return <p className="p-8 text-stone">Joining the takes…</p>;
  return <Loaded key={id} id={id} joined={found.data} />;
}

function Loaded({ id, joined }: { id: number; joined: Joined }) {
  const change = useJoinedChange(id);
  const tell = useTelling();
  const { notify } = useNotices();
  const [chosen, setChosen] = useState<Chosen>(null);
  const film = useSequenceFilm(id).data;
  const render = useSequenceFilmChange(id);
  const video = useRef<HTMLVideoElement>(null);
  const [now_s, setNow] = useState<number | null>(null);
  const pieces = joined.pieces.map((one) => one.piece);
  const item = chosen?.kind === "piece" ? joined.pieces[chosen.at] : undefined;
  const at = chosen?.at ?? -1;
  const put = (next: Piece[], words?: string) => {
    const sent = { pieces: next, base: pieces, seen: withPieces(joined, next) };
    if (words) tell(change, sent, { text: words, undo: { pieces, base: next, seen: joined } });
    else change.mutate(sent);
  };
  const trim = (end: "in" | "out", frames: number) =>
    item &&
    put(withPiece(pieces, at, trimmed(item, end, (frames * item.piece.speed) / joined.rate_hz)));
  const shift = (by: number) => {
    const to = at + by;
    if (!item || to < 0 || to >= pieces.length) return;
    put(moved(pieces, at, to));
    setChosen({ kind: "piece", at: to });
  };
  const leaveOut = () => {
    if (!item) return;
    put(
      pieces.filter((_, place) => place !== at),
      `Left out: ${item.subject}.`,
    );
    setChosen(null);
  };
  const step = (by: number) =>
    setChosen({ kind: "piece", at: Math.max(0, Math.min(pieces.length - 1, at + by)) });
  const stepCut = (by: number) =>
    joined.cuts.length > 0 &&
    setChosen({
      kind: "cut",
      at: Math.max(0, Math.min(joined.cuts.length - 1, chosen?.kind === "cut" ? at + by : 0)),
    });
  useEffect(() => {
    document.title = `Joined: ${joined.name} · Ridgewind`;
  }, [joined.name]);
  useKeys({
    "The next piece, the one before": { ArrowRight: () => step(1), ArrowLeft: () => step(-1) },
    "See it, play or pause": {
      v: () => {
        if (film?.state !== "done" || film.stale) return render.mutate("begin");
        if (video.current?.paused) void video.current.play();
        else video.current?.pause();
      },
    },
    "The next cut, the one before": { c: () => stepCut(1), x: () => stepCut(-1) },
    ...(item && {
      "Begin a frame earlier, later": { "<": () => trim("in", -1), ">": () => trim("in", 1) },
      "End a frame earlier, later": { ",": () => trim("out", -1), ".": () => trim("out", 1) },
      "Move the piece later, earlier": { "]": () => shift(1), "[": () => shift(-1) },
      "Leave the piece out": { Delete: leaveOut, Backspace: leaveOut },
      "Close it": { Escape: () => setChosen(null) },
    }),
  });
  const missing = joined.pieces.filter((one) => one.trouble).length;
  const fights = joined.cuts.filter((one) => one.joined === "fights").length;
  return (
    <>
      <OutingTabs id={id} />
      <header className="flex flex-wrap items-baseline gap-x-4 gap-y-1 px-4 pt-4 pb-3 sm:px-8">
        <h1 className="title text-title leading-tight">{joined.name}</h1>
        <p className="text-stone">
          {format.seconds(joined.frames / joined.rate_hz)} at {joined.rate_hz.toFixed(0)} frames a
          second, {format.counted(joined.pieces.length, "piece")}
          {missing > 0 && `, ${missing} missing`}
          {fights > 0 && `, ${format.counted(fights, "cut fights", "cuts fight")}`}
        </p>
        <p className="ml-auto flex flex-wrap items-baseline gap-3 text-note">
          {!joined.proposed && (
            <Button
              look="bare"
              onClick={() =>
                tell(change, null, {
                  text: "Proposed anew from the shots.",
                  undo: { pieces, base: pieces },
                })
              }
            >
              Propose it anew
            </Button>
          )}
        </p>
      </header>
      {change.error && <FaultView error={change.error} />}
      {joined.pieces.length > 0 && (
        <LookStrip
          id={id}
          joined={joined}
          onSnapped={() =>
            notify({
              text: "Cuts moved onto the beats.",
              undo: () => change.mutate({ pieces, base: null }),
            })
          }
        />
      )}
      {joined.pieces.length === 0 ? (
        <p className="px-4 text-stone sm:px-8">
          Nothing to join yet: plan shots, film them, and let takes meet them.
        </p>
      ) : (
        <div className="px-4 sm:px-8">
          <TimeLine
            joined={joined}
            chosen={chosen}
            onChoose={setChosen}
            onTrim={(place, piece) => put(withPiece(pieces, place, piece))}
            now_s={film?.stale ? null : now_s}
          />
        </div>
      )}
      {chosen?.kind === "cut" && (
        <CutPanel
          id={id}
          joined={joined}
          at={at}
          onTake={(better) =>
            put(
              pieces.map((one, place) =>
                place === at || place === at + 1 ? (better.pieces[place - at] ?? one) : one,
              ),
              better.words,
            )
          }
        />
      )}
      {item && (
        <PiecePanel
          joined={joined}
          item={item}
          at={at}
          onChange={(piece) => put(withPiece(pieces, at, piece))}
          onShift={shift}
          onLeaveOut={leaveOut}
        />
      )}
      {joined.pieces.length > 0 && (
        <SeenFilm id={id} joined={joined} film={film} video={video} onTime={setNow} />
      )}
      {joined.pieces.length > 0 && <TakenAlong id={id} joined={joined} />}
      {joined.pieces.length > 0 && <BroughtBack id={id} />}
    </>
  );
}
