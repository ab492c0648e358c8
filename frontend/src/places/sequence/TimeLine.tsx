import { useState } from "react";
import type { CutItem, Joined, Piece, PieceItem } from "../../api/joined";
import { SmallRidge } from "../../charts/SmallRidge";
import * as format from "../../formats";
import { useDrag } from "../../ui/useDrag";
import { useWidth } from "../../ui/useWidth";
import { CutMark } from "./CutMark";
import { trimmed } from "./pieces";

const LEAST_WIDTH = 64;
const RIDGE_HEIGHT = 56;

export type Chosen = { kind: "piece" | "cut"; at: number } | null;

type Props = {
  joined: Joined;
  chosen: Chosen;
  onChoose: (chosen: Chosen) => void;
  onTrim: (at: number, piece: Piece) => void;
  /** Where the film is that is seen, s; null where none is. */
  now_s: number | null;
};

/** Pieces one after the other, as long as they are shown: each as picture and ridge, the target
 * across all, and how each cut joins. */
export function TimeLine({ joined, chosen, onChoose, onTrim, now_s }: Props) {
  const [box, width] = useWidth<HTMLDivElement>();
  const { pieces, cuts, rate_hz, frames, target } = joined;
  const scale = pieces.length === 0 ? 0 : Math.max(width / frames, leastScale(pieces));
  return (
    <div ref={box} className="overflow-x-auto">
      <div className="relative" style={{ width: scale * frames }}>
        <ol aria-label="Pieces" className="flex">
          {width > 0 &&
            pieces.map((item, at) => (
              <PieceTile
                key={at}
                item={item}
                at={at}
                width={scale * item.frames}
                rate_hz={rate_hz}
                target={target}
                chosen={chosen?.kind === "piece" && chosen.at === at}
                cut={cuts[at - 1]}
                cutChosen={chosen?.kind === "cut" && chosen.at === at - 1}
                before={pieces[at - 1]}
                onChoose={() => onChoose({ kind: "piece", at })}
                onCut={() => onChoose({ kind: "cut", at: at - 1 })}
                onTrim={(piece) => onTrim(at, piece)}
              />
            ))}
        </ol>
        {now_s !== null && (
          <i
            data-testid="now"
            className="pointer-events-none absolute top-0 bottom-0 z-20 w-0.5 bg-lamp"
            style={{ left: scale * now_s * rate_hz }}
          />
        )}
      </div>
    </div>
  );
}

/** Px a frame at which the shortest piece can still be seen. */
const leastScale = (pieces: readonly PieceItem[]) =>
  LEAST_WIDTH / Math.min(...pieces.map((one) => one.frames));

type TileProps = {
  item: PieceItem;
  at: number;
  width: number;
  rate_hz: number;
  target: number;
  chosen: boolean;
  cut: CutItem | undefined;
  cutChosen: boolean;
  before: PieceItem | undefined;
  onChoose: () => void;
  onCut: () => void;
  onTrim: (piece: Piece) => void;
};

function PieceTile(props: TileProps) {
  const { item, at, width, rate_hz, target, chosen, cut, cutChosen, before } = props;
  const [draft, setDraft] = useState<Piece | null>(null);
  const piece = draft ?? item.piece;
  const perPixel_s = (item.frames / rate_hz / width) * item.piece.speed;
  // What is seen first of a piece that runs backwards is the end of its film.
  const ends = piece.backwards ? (["out", "in"] as const) : (["in", "out"] as const);
  const sign = piece.backwards ? -1 : 1;
  const handle = (end: "in" | "out") => ({
    onMove: (by_px: number) => setDraft(trimmed(item, end, sign * by_px * perPixel_s)),
    onEnd: () => {
      if (draft) props.onTrim(draft);
      setDraft(null);
    },
  });
  const seconds = (piece.out_s - piece.in_s) / piece.speed;
  return (
    <li className="relative min-w-0 flex-none" style={{ width }} data-testid={`piece-${at}`}>
      {cut && before && (
        <CutMark cut={cut} chosen={cutChosen} before={before} after={item} onChoose={props.onCut} />
      )}
      <button
        type="button"
        aria-pressed={chosen}
        onClick={props.onChoose}
        className={`block w-full overflow-hidden border-l border-paper text-left ${chosen ? "outline-2 -outline-offset-2 outline-ink" : ""}`}
      >
        <span className="sr-only">Piece {at + 1}, </span>
        <span className="block h-[84px] bg-ridge-1">
          {item.take && !item.trouble ? (
            <img
              src={`/api/takes/${item.take.id}/still`}
              alt=""
              draggable={false}
              className={`h-full w-full object-cover ${piece.backwards ? "-scale-x-100" : ""}`}
            />
          ) : (
            <span className="flex h-full items-center bg-[repeating-linear-gradient(45deg,var(--ridge-2)_0_2px,transparent_2px_8px)] px-2 text-small">
              <span className="bg-paper px-1">{item.trouble ?? "no take"}</span>
            </span>
          )}
        </span>
        <PartRidge item={item} piece={piece} width={width} target={target} />
        <span className="block truncate px-1 text-small font-semibold">{item.subject || "–"}</span>
        <span className="block truncate px-1 pb-1 text-small text-stone">
          {format.seconds(seconds)}
          {piece.speed !== 1 && ` · ${Math.round(100 * piece.speed)} %`}
          {piece.backwards && " · backwards"}
          {!item.trouble && <span className="sr-only">, gust {format.gust(item.gust)}</span>}
        </span>
      </button>
      {chosen && item.take && (
        <>
          <Handle side="left" {...handle(ends[0])} />
          <Handle side="right" {...handle(ends[1])} />
        </>
      )}
    </li>
  );
}

/** The part of a take's ridge that a piece shows. */
function PartRidge({
  item,
  piece,
  width,
  target,
}: {
  item: PieceItem;
  piece: Piece;
  width: number;
  target: number;
}) {
  if (!item.take || !item.length_s)
    return <span className="block" style={{ height: RIDGE_HEIGHT }} />;
  const whole = (width * item.length_s) / (piece.out_s - piece.in_s);
  return (
    <span
      className={`block overflow-hidden bg-mist ${piece.backwards ? "-scale-x-100" : ""}`}
      style={{ height: RIDGE_HEIGHT }}
    >
      <span
        className="block"
        style={{ marginLeft: (-whole * piece.in_s) / item.length_s, width: whole }}
      >
        <SmallRidge encoded={item.take.ridge} target={target} width={whole} height={RIDGE_HEIGHT} />
      </span>
    </span>
  );
}

type HandleProps = {
  side: "left" | "right";
  onMove: (by_px: number) => void;
  onEnd: () => void;
};

/** An end of a piece, to be dragged. */
function Handle({ side, onMove, onEnd }: HandleProps) {
  const drag = useDrag<{ from: number }>({
    onStart: (_, event) => ({ from: event.clientX }),
    onMove: () => undefined,
    onEnd,
    onCancel: onEnd,
  });
  const [from, setFrom] = useState(0);
  return (
    <span
      {...drag}
      onPointerDown={(event) => {
        setFrom(event.clientX);
        drag.onPointerDown(event);
      }}
      onPointerMove={(event) => {
        if (event.currentTarget.hasPointerCapture(event.pointerId)) onMove(event.clientX - from);
        drag.onPointerMove(event);
      }}
      data-testid={`trim-${side}`}
      className={`absolute top-0 bottom-0 z-10 w-3 cursor-ew-resize touch-none border-lamp ${side === "left" ? "left-0 border-l-4" : "right-0 border-r-4"}`}
    />
  );
}
