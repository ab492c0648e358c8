import { useState } from "react";
import { Link } from "react-router";
import type { Piece, PieceItem } from "../../api/joined";
import { NumberField } from "../../ui/NumberField";
import { Toggle } from "../../ui/Toggle";
import { useDrag } from "../../ui/useDrag";

const HEIGHT = 120;

type Props = { item: PieceItem; onChange: (piece: Piece) => void };
type Framing = Piece["framing"];

/** Where the window of the sequence's shape stands in the picture; dragged, or told in percent. */
export function WindowPicker({ item, onChange }: Props) {
  const [draft, setDraft] = useState<Framing | null>(null);
  const [ratio, setRatio] = useState(16 / 9);
  const [wide = 1, high = 1] = item.window ?? [];
  if (!item.take || !item.window || (wide > 0.999 && high > 0.999)) return null;
  const framing = draft ?? item.piece.framing;
  const put = (next: Framing) => onChange({ ...item.piece, framing: next });
  const width = HEIGHT * ratio;
  const room = { x: (width * (1 - wide)) / 2, y: (HEIGHT * (1 - high)) / 2 };
  return (
    <div className="flex flex-wrap items-center gap-3">
      <Frame
        src={`/api/takes/${item.take.id}/still`}
        size={[width, HEIGHT]}
        box={[
          room.x * (1 + framing.right),
          room.y * (1 + framing.down),
          width * wide,
          HEIGHT * high,
        ]}
        follows={framing.follows}
        onRatio={setRatio}
        onMove={(x, y) =>
          setDraft({
            ...framing,
            right: room.x > 1 ? clamped(x / room.x) : 0,
            down: room.y > 1 ? clamped(y / room.y) : 0,
          })
        }
        onEnd={() => {
          if (draft) put(draft);
          setDraft(null);
        }}
        onCancel={() => setDraft(null)}
        framing={framing}
        room={room}
      />
      <div className="flex flex-col items-start gap-2">
        {!framing.follows && room.x > 1 && (
          <NumberField
            label="Window to the right"
            unit="% right"
            value={Math.round(100 * framing.right)}
            min={-100}
            max={100}
            onChange={(value) => put({ ...framing, right: value / 100 })}
          />
        )}
        {!framing.follows && room.y > 1 && (
          <NumberField
            label="Window down"
            unit="% down"
            value={Math.round(100 * framing.down)}
            min={-100}
            max={100}
            onChange={(value) => put({ ...framing, down: value / 100 })}
          />
        )}
        <Toggle
          label="Follow the subject"
          on={framing.follows}
          disabled={!item.marked && !framing.follows}
          onChange={(follows) => put({ ...framing, follows })}
        />
        {!item.marked && (
          <Link to={`/takes/${item.take.id}`} className="text-note underline">
            Mark a subject on the take
          </Link>
        )}
      </div>
    </div>
  );
}

const clamped = (share: number) => Math.round(1000 * Math.max(-1, Math.min(1, share))) / 1000;

type FrameProps = {
  src: string;
  size: [number, number];
  box: [number, number, number, number];
  follows: boolean;
  framing: Framing;
  room: { x: number; y: number };
  onRatio: (ratio: number) => void;
  /** How far the window's middle is from the picture's, px. */
  onMove: (x: number, y: number) => void;
  onEnd: () => void;
  onCancel: () => void;
};

function Frame({
  src,
  size,
  box,
  follows,
  framing,
  room,
  onRatio,
  onMove,
  onEnd,
  onCancel,
}: FrameProps) {
  const [width, height] = size;
  const [left, top, wide, high] = box;
  const drag = useDrag<{ x: number; y: number }>({
    onStart: (at) =>
      follows ? null : { x: at.x - room.x * framing.right, y: at.y - room.y * framing.down },
    onMove: (at, from) => onMove(at.x - from.x, at.y - from.y),
    onEnd,
    onCancel,
  });
  return (
    <div
      data-testid="window"
      className={`relative touch-none overflow-hidden ${follows ? "" : "cursor-move"}`}
      style={{ width, height }}
      {...drag}
    >
      <img
        src={src}
        alt=""
        draggable={false}
        className="size-full"
        onLoad={(event) => {
          const { naturalWidth, naturalHeight } = event.currentTarget;
          if (naturalHeight) onRatio(naturalWidth / naturalHeight);
        }}
      />
      <span
        className={`absolute outline-2 outline-lamp ${follows ? "outline-dashed" : "shadow-[0_0_0_999px_rgb(16_37_43/0.55)]"}`}
        style={{ left, top, width: wide, height: high }}
      />
    </div>
  );
}
