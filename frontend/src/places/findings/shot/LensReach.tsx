import { scaleLog } from "d3-scale";
import type { ShotAnswer } from "../../../api/shot";
import { TicksAcross } from "../../../charts/Ticks";
import * as format from "../../../formats";
import { useWidth } from "../../../ui/useWidth";
import { TICKS_MM } from "../limits/layout";

const [ROW, TOP, FOOT] = [20, 8, 20];

/** The lenses of the kit along the focal lengths, with the one that is wanted. */
export function LensReach({ answer, focal }: { answer: ShotAnswer; focal: number }) {
  const [box, width] = useWidth<HTMLDivElement>();
  const x = scaleLog([10, 320], [10, Math.max(11, width - 12)]).clamp(true);
  const height = TOP + ROW * answer.lenses.length + FOOT;
  const told = answer.lenses
    .map((one) => `${one.name}: ${reach(one.low_mm, one.high_mm)}`)
    .join("; ");
  return (
    <figure
      ref={box}
      aria-label={`Wanted ${format.millimetres(focal)}. ${told}.`}
      className="min-w-0"
    >
      {width > 0 && (
        <svg width={width} height={height} aria-hidden="true">
          <line
            x1={x(focal)}
            x2={x(focal)}
            y1={0}
            y2={height - FOOT + 4}
            stroke="var(--lamp)"
            strokeWidth="3"
          />
          {answer.lenses.map((one, index) => {
            const y = TOP + ROW * index;
            const [from, to] = [x(one.low_mm), x(one.high_mm)];
            const right = from > width / 2;
            return (
              <g key={one.name}>
                <rect
                  x={from - 2}
                  y={y + 4}
                  width={Math.max(4, to - from + 4)}
                  height={8}
                  fill="var(--ridge-3)"
                />
                <text
                  className="text-small"
                  x={right ? from - 8 : to + 8}
                  y={y + 12}
                  textAnchor={right ? "end" : "start"}
                  fill="var(--stone)"
                  stroke="var(--mist)"
                  strokeWidth="4"
                  paintOrder="stroke"
                >
                  {one.name}
                </text>
              </g>
            );
          })}
          <TicksAcross ticks={TICKS_MM} x={x} y={height - 3} />
        </svg>
      )}
    </figure>
  );
}

const reach = (low: number, high: number) =>
  Math.round(low) === Math.round(high)
    ? format.millimetres(low)
    : `${Math.round(low)} to ${format.millimetres(high)}`;
