import { scaleLinear } from "d3-scale";
import type { Noted } from "../../../api/progress";
import { TicksUp } from "../../../charts/Ticks";
import { useWidth } from "../../../ui/useWidth";
import { signed } from "../trials/words";
import * as format from "../../../formats";
import { tirednessWord } from "./words";

const [HEIGHT, FOOT, LEFT] = [190, 26, 44];
const LEVELS = [1, 2, 3, 4, 5] as const;
const WORTH_STOPPING = 0.5;

/** What each tiredness adds against being fresh, with its interval; the line is where to stop. */
export function TirednessSlope({ tiredness }: { tiredness: NonNullable<Noted["tiredness"]> }) {
  const [box, width] = useWidth<HTMLDivElement>();
  const values = tiredness.levels.flatMap((one) => [one.low ?? one.value, one.high ?? one.value]);
  const y = scaleLinear(
    [Math.min(-0.1, ...values), Math.max(WORTH_STOPPING + 0.1, ...values)],
    [HEIGHT - FOOT, 10],
  );
  const x = (level: number) => LEFT + ((width - LEFT) * (level - 0.5)) / LEVELS.length;
  const told = tiredness.levels
    .map(
      (one) => `${tirednessWord(one.level)}: ${signed(one.value)}, of ${format.takes(one.takes)}`,
    )
    .join("; ");
  return (
    <figure ref={box} aria-label={`Gust added against ${tirednessWord(tiredness.base)}. ${told}.`}>
      {width > 0 && (
        <svg width={width} height={HEIGHT} aria-hidden="true">
          <TicksUp ticks={y.ticks(4)} y={y} from={LEFT} to={width} />
          <line
            x1={LEFT}
            x2={width}
            y1={y(WORTH_STOPPING)}
            y2={y(WORTH_STOPPING)}
            stroke="var(--ember)"
          />
          <text className="text-fine" x={LEFT + 4} y={y(WORTH_STOPPING) - 4} fill="var(--ember)">
            worth stopping
          </text>
          <circle cx={x(tiredness.base)} cy={y(0)} r="5" fill="var(--ridge-5)" />
          {tiredness.levels.map((one) => (
            <g key={one.level}>
              <line
                x1={x(one.level)}
                x2={x(one.level)}
                y1={y(one.low ?? one.value)}
                y2={y(one.high ?? one.value)}
                stroke="var(--ridge-4)"
                strokeWidth="5"
              />
              <circle
                cx={x(one.level)}
                cy={y(one.value)}
                r="5"
                fill="var(--paper)"
                stroke="var(--ridge-5)"
                strokeWidth="2"
              />
            </g>
          ))}
          {LEVELS.map((level) => (
            <text
              key={level}
              className="text-small"
              x={x(level)}
              y={HEIGHT - 6}
              textAnchor="middle"
              fill="var(--stone)"
            >
              {tirednessWord(level)}
            </text>
          ))}
        </svg>
      )}
    </figure>
  );
}
