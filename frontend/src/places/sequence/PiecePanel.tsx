import type { Piece, PieceItem } from "../../api/joined";
import { Key } from "../../keys/Key";
import { Button } from "../../ui/Button";
import { NumberField } from "../../ui/NumberField";
import { Toggle } from "../../ui/Toggle";

type Props = {
  item: PieceItem;
  at: number;
  onChange: (piece: Piece) => void;
  onShift: (by: number) => void;
  onLeaveOut: () => void;
};

/** One piece: where it begins and ends, how fast and which way it is shown. */
export function PiecePanel({ item, at, onChange, onShift, onLeaveOut }: Props) {
  return (
    <section
      aria-label={`Piece ${at + 1}`}
      className="flex flex-wrap items-center gap-3 border-y border-line bg-paper px-4 py-3 sm:px-8"
    >
      <b className="font-semibold">
        {at + 1} {item.subject}
      </b>
      {item.trouble && <span className="text-note text-ember-deep">{item.trouble}</span>}
      {item.take && (
        <>
          <NumberField
            label="In"
            unit="s in"
            value={item.piece.in_s}
            digits={2}
            min={0}
            max={item.piece.out_s - 0.2}
            onChange={(in_s) => onChange({ ...item.piece, in_s })}
          />
          <NumberField
            label="Out"
            unit="s out"
            value={item.piece.out_s}
            digits={2}
            min={item.piece.in_s + 0.2}
            max={item.length_s ?? item.piece.out_s}
            onChange={(out_s) => onChange({ ...item.piece, out_s })}
          />
          <NumberField
            label="Speed"
            unit="% speed"
            value={Math.round(100 * item.piece.speed)}
            min={5}
            max={400}
            onChange={(share) => onChange({ ...item.piece, speed: share / 100 })}
          />
          <Toggle
            label="Backwards"
            on={item.piece.backwards}
            onChange={(backwards) => onChange({ ...item.piece, backwards })}
          />
        </>
      )}
      <span className="ml-auto flex gap-2">
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
    </section>
  );
}
