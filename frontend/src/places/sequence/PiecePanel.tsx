import type { Joined, Piece, PieceItem } from "../../api/joined";
import * as format from "../../formats";
import { Key } from "../../keys/Key";
import { Button } from "../../ui/Button";
import { NumberField } from "../../ui/NumberField";
import { Toggle } from "../../ui/Toggle";
import { RampEditor } from "./RampEditor";
import { WindowPicker } from "./WindowPicker";

type Props = {
  joined: Joined;
  item: PieceItem;
  at: number;
  onChange: (piece: Piece) => void;
  onShift: (by: number) => void;
  onLeaveOut: () => void;
};

/** One piece: where it begins and ends, how fast and which way it is shown, and what of it is seen. */
export function PiecePanel({ joined, item, at, onChange, onShift, onLeaveOut }: Props) {
  const { piece } = item;
  return (
    <section
      aria-label={`Piece ${at + 1}`}
      className="space-y-3 border-y border-line bg-paper px-4 py-3 sm:px-8"
    >
      <div className="flex flex-wrap items-center gap-3">
        <b className="font-semibold">
          {at + 1} {item.subject}
        </b>
        {!item.trouble && <Told joined={joined} item={item} />}
        {item.trouble && <span className="text-note text-ember-deep">{item.trouble}</span>}
        <span className="ml-auto flex flex-wrap gap-2">
          <Button onClick={() => onShift(-1)}>
            Earlier <Key>[</Key>
          </Button>
          <Button onClick={() => onShift(1)}>
            Later <Key>]</Key>
          </Button>
          <Button onClick={onLeaveOut}>
            Leave it out <Key>Del</Key>
          </Button>
        </span>
      </div>
      {item.take && (
        <div className="flex flex-wrap items-center gap-x-6 gap-y-3">
          <span className="flex flex-wrap items-center gap-2">
            <NumberField
              label="In"
              unit="s in"
              value={piece.in_s}
              digits={2}
              min={0}
              max={piece.out_s - 0.2}
              onChange={(in_s) => onChange({ ...piece, in_s })}
            />
            <NumberField
              label="Out"
              unit="s out"
              value={piece.out_s}
              digits={2}
              min={piece.in_s + 0.2}
              max={item.length_s ?? piece.out_s}
              onChange={(out_s) => onChange({ ...piece, out_s })}
            />
            <Toggle
              label="Backwards"
              on={piece.backwards}
              onChange={(backwards) => onChange({ ...piece, backwards })}
            />
          </span>
          <RampEditor
            piece={piece}
            slowest={Math.min(1, joined.rate_hz / (item.fps ?? joined.rate_hz))}
            onChange={onChange}
          />
          <WindowPicker item={item} onChange={onChange} />
        </div>
      )}
    </section>
  );
}

/** What showing it so gives and costs. */
function Told({ joined, item }: { joined: Joined; item: PieceItem }) {
  const left = item.left ?? 1;
  const gust = `gust ${format.gust(item.gust)}, ${format.gust(joined.target)} allowed`;
  const pixels =
    left < 0.995
      ? ` · ${Math.round(left * (joined.delivered[0] ?? 0))} of ${joined.delivered[0]} px across`
      : "";
  return (
    <span className="text-note text-stone">
      {gust}
      {pixels}
      {item.notes.map((note) => (
        <span key={note} className="text-ember-deep">
          {" "}
          · {note}
        </span>
      ))}
    </span>
  );
}
