import { useState } from "react";
import type { CutItem, Piece, PieceItem } from "../../api/joined";
import { SmallRidge } from "../../charts/SmallRidge";
import * as format from "../../formats";
import { useDrag } from "../../ui/useDrag";
import { CutMark } from "./CutMark";
import { trimmed } from "./pieces";
import { secondsOf } from "./ramp";

const RIDGE_HEIGHT = 56;

type TileProps = {
  item: PieceItem;
  at: number;
  width: number;
  target: number;
  chosen: boolean;
  cut: CutItem | undefined;
  cutChosen: boolean;
  before: PieceItem | undefined;
  ratio: number;
  asPlanned: boolean;
  onChoose: () => void;
  onCut: () => void;
  onTrim: (piece: Piece) => void;
};

/** One piece: its picture, its ridge as it is seen, and handles that trim it. */
export function PieceTile(props: TileProps) {
  const { item, at, width, target, chosen, cut, cutChosen, before } = props;
  const [draft, setDraft] = useState<Piece | null>(null);
  const piece = draft ?? item.piece;
  const perPixel_s = (piece.out_s - piece.in_s) / width;
  // What is seen first of a piece that runs backwards is the end of its film.
  const ends = piece.backwards ? (["out", "in"] as const) : (["in", "out"] as const);
  const sign = piece.backwards ? -1 : 1;
  const handle = (end: "in" | "out") => ({
    onMove: (by_px: number) => setDraft(trimmed(item, end, sign * by_px * perPixel_s)),
    onEnd: () => {
      if (draft) props.onTrim(draft);
      setDraft(null);
    },
    onCancel: () => setDraft(null),
  });
  const seconds = secondsOf(piece);
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
            <Still item={item} ratio={props.ratio} fills={props.asPlanned} />
          ) : (
            <span className="flex h-full items-center bg-[repeating-linear-gradient(45deg,var(--ridge-2)_0_2px,transparent_2px_8px)] px-2 text-small">
              <span className="bg-paper px-1">{item.trouble ?? "no take"}</span>
            </span>
          )}
        </span>
        {draft ? (
          <PartRidge item={item} piece={piece} width={width} target={target} />
        ) : (
          <span className="block bg-mist" style={{ height: RIDGE_HEIGHT }}>
            <SmallRidge encoded={item.ridge} target={target} width={width} height={RIDGE_HEIGHT} />
          </span>
        )}
        <span className="block truncate px-1 text-small font-semibold">{item.subject || "–"}</span>
        <span className="block truncate px-1 pb-1 text-small text-stone">
          {format.seconds(seconds)}
          {piece.ramp.length > 0
            ? " · ramp"
            : piece.speed !== 1 && ` · ${Math.round(100 * piece.speed)} %`}
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

/** A picture of a take: all of it, or what the sequence's window shows. */
function Still({ item, ratio, fills }: { item: PieceItem; ratio: number; fills: boolean }) {
  const [wide = 1, high = 1] = item.window ?? [];
  const { right, down } = item.piece.framing;
  const src = `/api/takes/${item.take?.id}/still`;
  if (fills) {
    const at = `${50 * (1 + right)}% ${50 * (1 + down)}%`;
    return (
      <img
        src={src}
        alt=""
        draggable={false}
        className="h-full w-full object-cover"
        style={{ objectPosition: at }}
      />
    );
  }
  return (
    <span
      className="relative mx-auto block h-full max-w-full overflow-hidden"
      style={{ aspectRatio: ratio }}
    >
      <img
        src={src}
        alt=""
        draggable={false}
        className="absolute max-w-none"
        style={{
          width: `${100 / wide}%`,
          height: `${100 / high}%`,
          left: `${-50 * (1 / wide - 1) * (1 + right)}%`,
          top: `${-50 * (1 / high - 1) * (1 + down)}%`,
        }}
      />
    </span>
  );
}

/** The part of a take's ridge that a piece shows, while it is trimmed. */
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
  onCancel: () => void;
};

/** An end of a piece, to be dragged. */
function Handle({ side, onMove, onEnd, onCancel }: HandleProps) {
  const drag = useDrag<{ from: number }>({
    onStart: (_, event) => ({ from: event.clientX }),
    onMove: () => undefined,
    onEnd,
    onCancel,
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
      className={`absolute top-0 bottom-0 z-(--layer-raised) w-3 cursor-ew-resize touch-none border-lamp ${side === "left" ? "left-0 border-l-4" : "right-0 border-r-4"}`}
    />
  );
}
