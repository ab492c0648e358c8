import { Link } from "react-router";
import type { DrillTrial, TrialTake } from "../../../api/trials";
import { TicksAcross } from "../../../charts/Ticks";
import * as format from "../../../formats";
import { useWidth } from "../../../ui/useWidth";
import { ridgeOver, rowsOf, valueScale, type Row, type X } from "./layout";

const LINE_PX = 17;
const RIDGE_PX = 34;
const FOOT_PX = 26;
const LABEL_PX = 168;
const NARROW = 560;

/** Every take a point: variations beneath one another, their sessions apart, and over each a ridge
 * where its takes lie. */
export function TakesPicture({ trial }: { trial: DrillTrial }) {
  const [box, width] = useWidth<HTMLDivElement>();
  const rows = rowsOf(trial);
  const aside = width > NARROW ? LABEL_PX : 12;
  const x = valueScale(trial, aside, width - 14);
  const heads = width > NARROW ? 0 : 18;
  const tall = (row: Row) => RIDGE_PX + heads + row.lines.length * LINE_PX + 8;
  const tops = rows.map((_, k) => rows.slice(0, k).reduce((sum, row) => sum + tall(row), 0));
  const total = rows.reduce((sum, row) => sum + tall(row), 0);
  return (
    <div ref={box} className="min-w-0">
      {width > 0 && rows.length > 0 && (
        <svg width={width} height={total + FOOT_PX} role="group" aria-label="Takes of the trial">
          <TicksAcross
            ticks={x.ticks(Math.max(2, Math.floor((width - aside) / 70)))}
            x={x}
            y={total + 17}
            lineTo={total}
          />
          {rows.map((row, k) => (
            <RowPicture
              key={row.side.key}
              row={row}
              x={x}
              top={tops[k] ?? 0}
              width={width}
              aside={aside}
              head={heads}
            />
          ))}
        </svg>
      )}
    </div>
  );
}

type RowProps = { row: Row; x: X; top: number; width: number; aside: number; head: number };

function RowPicture({ row, x, top, width, aside, head }: RowProps) {
  const foot = top + head + RIDGE_PX;
  const { side } = row;
  return (
    <g>
      <path
        d={ridgeOver(row.values, x, foot, RIDGE_PX - 8)}
        fill={side.control ? "var(--ridge-2)" : "var(--ridge-4)"}
      />
      <line x1={aside} x2={width} y1={foot} y2={foot} stroke="var(--ridge-3)" />
      <text
        x={0}
        y={head > 0 ? top + 14 : foot - 4}
        className="text-note"
        fontWeight="650"
        fill="var(--ink)"
      >
        {shortened(side.name, head > 0 ? 44 : 22)}
      </text>
      {side.control && head === 0 && (
        <text x={0} y={foot + 11} className="text-fine" fill="var(--stone)">
          the plain control
        </text>
      )}
      {row.lines.map((line, index) => {
        const y = foot + LINE_PX * (index + 0.5) + 3;
        return (
          <g key={line.takes[0]?.session_id}>
            <line x1={aside} x2={width} y1={y} y2={y} stroke="var(--line)" strokeDasharray="1 4" />
            {head === 0 && line.takes[0]?.filmed_at && (
              <text
                x={aside - 6}
                y={y + 4}
                className="text-fine"
                textAnchor="end"
                fill="var(--stone)"
              >
                {format.shortDay(line.takes[0].filmed_at)}
              </text>
            )}
            {line.takes.map((take) => (
              <Point key={take.take_id} take={take} x={x} y={y} control={side.control} />
            ))}
          </g>
        );
      })}
    </g>
  );
}

type PointProps = { take: TrialTake; x: X; y: number; control: boolean };

/** A take; hollow where it is of the control, crossed where it does not count. */
function Point({ take, x, y, control }: PointProps) {
  const at = x(take.value ?? 0);
  const told = `${take.name}: ${(take.value ?? 0).toFixed(2)}, ${take.session}${take.why_out && `, ${take.why_out}`}`;
  return (
    <Link to={`/takes/${take.take_id}`} aria-label={told}>
      <title>{told}</title>
      {take.why_out ? (
        <path
          d={`M${at - 4} ${y - 4}l8 8m0 -8l-8 8`}
          stroke="var(--stone)"
          strokeWidth="1.5"
          fill="none"
        />
      ) : (
        <circle
          cx={at}
          cy={y}
          r="5"
          fill={control ? "var(--paper)" : "var(--ridge-4)"}
          stroke={control ? "var(--ridge-5)" : "var(--paper)"}
          strokeWidth={control ? 1.8 : 1}
        />
      )}
    </Link>
  );
}

const shortened = (name: string, most: number) =>
  name.length > most ? `${name.slice(0, most - 1)}…` : name;
