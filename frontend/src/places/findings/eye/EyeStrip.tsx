import { scaleLinear } from "d3-scale";
import type { Threshold } from "../../../api/eye";
import { useWidth } from "../../../ui/useWidth";

const HEIGHT = 92;
const MIDDLE = 46;
const SIDE = 14;

type Mark = { take_id: number; value: number; smooth: boolean; take_name: string };
type Props = {
  marks: Mark[];
  threshold: Threshold;
  usual: number;
  most: number;
  unit: string;
  label: string;
};

/** Marks along a scale: smooth above the line, not below, and where the two part. */
export function EyeStrip({ marks, threshold, usual, most, unit, label }: Props) {
  const [box, width] = useWidth<HTMLDivElement>();
  const x = scaleLinear([0, most], [SIDE, Math.max(width - SIDE, SIDE + 1)]).clamp(true);
  return (
    <div ref={box} style={{ height: HEIGHT }}>
      {width > 0 && (
        <svg width={width} height={HEIGHT} role="img" aria-label={label}>
          <rect
            x={x(threshold.low)}
            width={x(threshold.high) - x(threshold.low)}
            y={8}
            height={HEIGHT - 30}
            fill="var(--lichen-wash)"
          />
          <line x1={SIDE} x2={width - SIDE} y1={MIDDLE - 8} y2={MIDDLE - 8} stroke="var(--line)" />
          <line
            x1={x(usual)}
            x2={x(usual)}
            y1={8}
            y2={HEIGHT - 22}
            stroke="var(--stone)"
            strokeDasharray="2 3"
          />
          <line
            x1={x(threshold.value)}
            x2={x(threshold.value)}
            y1={4}
            y2={HEIGHT - 22}
            stroke="var(--lichen-deep)"
            strokeWidth="2"
          />
          {marks.map((mark) =>
            mark.smooth ? (
              <circle
                key={`${mark.take_id} ${mark.value}`}
                cx={x(mark.value)}
                cy={MIDDLE - 20}
                r="5"
                fill="var(--lichen-deep)"
              >
                <title>{mark.take_name}</title>
              </circle>
            ) : (
              <path
                key={`${mark.take_id} ${mark.value}`}
                d={`M${x(mark.value) - 4} ${MIDDLE}l8 8m0 -8l-8 8`}
                stroke="var(--ember)"
                strokeWidth="2"
              >
                <title>{mark.take_name}</title>
              </path>
            ),
          )}
          {x.ticks(10).map((tick) => (
            <text
              className="text-fine"
              key={tick}
              x={x(tick)}
              y={HEIGHT - 6}
              textAnchor="middle"
              fill="var(--stone)"
            >
              {tick}
              {unit}
            </text>
          ))}
          <text className="text-fine" x={SIDE} y={16} fill="var(--stone)">
            smooth enough
          </text>
          <text className="text-fine" x={SIDE} y={HEIGHT - 26} fill="var(--stone)">
            not
          </text>
        </svg>
      )}
    </div>
  );
}
