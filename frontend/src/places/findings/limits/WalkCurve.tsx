import type { Technique } from "../../../api/limits";
import { around } from "../../../charts/around";
import { TicksAcross, TicksUp } from "../../../charts/Ticks";
import * as format from "../../../formats";
import { useWidth } from "../../../ui/useWidth";

const HEIGHT = 150;

type Walk = NonNullable<Technique["walk"]>;

/** Gust over the pace of a walk, against the target, with the fastest that still passes. */
export function WalkCurve({ one, walk, target }: { one: Technique; walk: Walk; target: number }) {
  const [box, width] = useWidth<HTMLDivElement>();
  const x = around(walk.cadences, 34, Math.max(width - 10, 35), 3);
  const y = around([...walk.gusts, target], HEIGHT - 26, 10);
  const [least, most] = [Math.min(...walk.cadences), Math.max(...walk.cadences)];
  const mean = (values: number[]) => values.reduce((sum, v) => sum + v, 0) / values.length;
  const [middle, level] = [mean(walk.cadences), mean(walk.gusts)];
  const at = (cadence: number) => y(level + walk.slope * (cadence - middle));
  return (
    <div className="min-w-0">
      <p className="leading-tight">
        <b className="font-semibold">{one.name}</b>{" "}
        <span className="text-small text-stone">{format.takes(walk.cadences.length)}</span>
      </p>
      <p className="text-note">{words(walk, most)}</p>
      <div ref={box}>
        {width > 0 && (
          <svg width={width} height={HEIGHT} aria-hidden="true">
            <TicksUp ticks={y.ticks(3)} y={y} from={34} to={width} />
            <line
              x1={34}
              x2={width}
              y1={y(target)}
              y2={y(target)}
              stroke="var(--ink)"
              strokeDasharray="2 3"
            />
            <text
              className="text-fine"
              x={width}
              y={y(target) - 4}
              textAnchor="end"
              fill="var(--ink)"
            >
              target {format.gust(target)}
            </text>
            {walk.cadence !== null && (
              <rect
                x={x(least)}
                width={Math.max(1, x(walk.cadence) - x(least))}
                y={10}
                height={HEIGHT - 36}
                fill="var(--lichen-wash)"
              />
            )}
            <line
              x1={x(least)}
              x2={x(most)}
              y1={at(least)}
              y2={at(most)}
              stroke="var(--ridge-5)"
              strokeWidth="2"
            />
            {walk.cadences.map((cadence, k) => (
              <circle
                key={walk.take_ids[k]}
                cx={x(cadence)}
                cy={y(walk.gusts[k] ?? 0)}
                r="4"
                fill="var(--ridge-4)"
                stroke="var(--paper)"
              />
            ))}
            <TicksAcross ticks={x.ticks(4)} x={x} y={HEIGHT - 8} fine />
          </svg>
        )}
      </div>
    </div>
  );
}

function words(walk: Walk, most: number): string {
  if (walk.cadence === null) return "No pace that you walked passes four times in five.";
  if (walk.at_most_walked) {
    return `Every pace that you walked passes, up to ${Math.round(most)} steps a minute.`;
  }
  return `Passes four times in five up to ${Math.round(walk.cadence)} steps a minute.`;
}
