import { useState } from "react";
import type { Piece } from "../../api/joined";
import { NumberField } from "../../ui/NumberField";
import { Segments } from "../../ui/Segments";
import { useDrag } from "../../ui/useDrag";
import { kindOf, rampOf, RAMPS, speedAt, SPEEDS, withKnot, type Knot, type RampKind } from "./ramp";

const WIDTH = 260;
const HEIGHT = 72;
const SHOWN = { slow: 0.2, quick: 4 };
const LINES = [0.25, 0.5, 1, 2];

type Props = {
  piece: Piece;
  /** Speed at which every frame filmed is still shown once. */
  slowest: number;
  onChange: (piece: Piece) => void;
};

/** How fast a piece runs: one speed, or a curve whose knots are dragged. */
export function RampEditor({ piece, slowest, onChange }: Props) {
  const [draft, setDraft] = useState<Knot[] | null>(null);
  const ramp = draft ?? piece.ramp;
  const kind = kindOf(piece);
  const put = (next: Knot[]) => onChange({ ...piece, ramp: next });
  return (
    <div className="flex flex-wrap items-center gap-3">
      <Segments
        label="Speed along it"
        value={kind}
        options={[
          ...(Object.keys(RAMPS) as RampKind[]).map((value) => ({ value, words: RAMPS[value] })),
          ...(kind === "own" ? [{ value: "own" as const, words: "Own" }] : []),
        ]}
        onChange={(next) => next !== "own" && put(rampOf(next, piece, slowest))}
      />
      {ramp.length === 0 ? (
        <NumberField
          label="Speed"
          unit="% speed"
          value={Math.round(100 * piece.speed)}
          min={5}
          max={400}
          onChange={(share) => onChange({ ...piece, speed: share / 100 })}
        />
      ) : (
        <>
          <Curve
            piece={piece}
            ramp={ramp}
            onMove={(at, to) => setDraft(withKnot(ramp, at, to))}
            onEnd={() => {
              if (draft) put(draft);
              setDraft(null);
            }}
            onCancel={() => setDraft(null)}
          />
          <ol aria-label="Knots of the ramp" className="flex flex-wrap gap-2">
            {ramp.map((knot, at) => (
              <li key={at} className="flex items-center gap-1">
                <NumberField
                  label={`Speed at knot ${at + 1}`}
                  unit="% at"
                  value={Math.round(100 * knot.speed)}
                  min={100 * SPEEDS.least}
                  max={100 * SPEEDS.most}
                  onChange={(share) => put(withKnot(ramp, at, { ...knot, speed: share / 100 }))}
                />
                <NumberField
                  label={`Moment of knot ${at + 1}`}
                  unit="s"
                  value={knot.at_s}
                  digits={2}
                  min={0}
                  max={36_000}
                  onChange={(at_s) => put(withKnot(ramp, at, { ...knot, at_s }))}
                />
              </li>
            ))}
          </ol>
        </>
      )}
    </div>
  );
}

const toY = (speed: number) =>
  (HEIGHT * Math.log(SHOWN.quick / Math.max(SHOWN.slow, speed))) /
  Math.log(SHOWN.quick / SHOWN.slow);
const toSpeed = (y: number) => SHOWN.quick * (SHOWN.slow / SHOWN.quick) ** (y / HEIGHT);

type CurveProps = {
  piece: Piece;
  ramp: readonly Knot[];
  onMove: (at: number, to: Knot) => void;
  onEnd: () => void;
  onCancel: () => void;
};

/** Speed over the film that the piece uses; slower is lower. */
function Curve({ piece, ramp, onMove, onEnd, onCancel }: CurveProps) {
  const length_s = piece.out_s - piece.in_s;
  // As it is seen: a piece that runs backwards begins at its film's end.
  const flipped = (share: number) => (piece.backwards ? 1 - share : share);
  const toX = (at_s: number) => WIDTH * flipped((at_s - piece.in_s) / length_s);
  const points = Array.from({ length: 66 }, (_, k) => piece.in_s + (length_s * k) / 65);
  const line = points.map((at_s) => `${toX(at_s)},${toY(speedAt(ramp, at_s))}`).join(" ");
  const drag = useDrag<number>({
    onStart: (at) => {
      const near = ramp.map((knot) => Math.hypot(toX(knot.at_s) - at.x, toY(knot.speed) - at.y));
      const best = near.indexOf(Math.min(...near));
      return (near[best] ?? 99) < 20 ? best : null;
    },
    onMove: (at, knot) =>
      onMove(knot, {
        at_s: piece.in_s + flipped(at.x / WIDTH) * length_s,
        speed: toSpeed(at.y),
      }),
    onEnd,
    onCancel,
  });
  return (
    <svg
      width={WIDTH}
      height={HEIGHT}
      aria-hidden="true"
      data-testid="ramp"
      className="mr-12 touch-none overflow-visible bg-mist"
      {...drag}
    >
      {LINES.map((speed) => (
        <g key={speed}>
          <line
            x2={WIDTH}
            y1={toY(speed)}
            y2={toY(speed)}
            stroke={speed === 1 ? "var(--stone)" : "var(--line)"}
          />
          <text x={WIDTH + 4} y={toY(speed) + 4} className="fill-stone text-fine">
            {100 * speed} %
          </text>
        </g>
      ))}
      <polyline points={line} fill="none" stroke="var(--ridge-5)" strokeWidth="2" />
      {ramp.map((knot, at) => (
        <circle
          key={at}
          cx={Math.max(0, Math.min(WIDTH, toX(knot.at_s)))}
          cy={toY(knot.speed)}
          r="6"
          fill="var(--lamp)"
          stroke="var(--ink)"
          className="cursor-move"
        />
      ))}
    </svg>
  );
}
