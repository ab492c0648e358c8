import { scaleLog } from "d3-scale";
import { useWidth } from "../../../ui/useWidth";
import type { Timing } from "./types";

const HEIGHT = 104;
const AXIS = 56;
const PAD = 14;
const CHARACTER_PX = 6.2;
const GAP_PX = 5;

type Props = { time: Timing; chosen: number | null; mainsHz: 50 | 60 | null };

/** The camera's shutter speeds in stops, half the frame interval, and what is free of flicker. */
export function ShutterScale({ time, chosen, mainsHz }: Props) {
  const [box, width] = useWidth<HTMLDivElement>();
  const speeds = time.speeds.map((speed) => speed.denominator);
  const low = Math.min(...speeds, time.half);
  const high = Math.max(...speeds, time.half);
  const x = scaleLog([low, Math.max(high, low * 1.01)], [PAD, Math.max(width - PAD, PAD + 1)]);
  const safe = (speed: Timing["speeds"][number]) =>
    mainsHz === null ? false : mainsHz === 50 ? speed.safe_50 : speed.safe_60;
  const notable = new Set([chosen, time.nearest]);
  const labels: { at: number; half: number; words: string }[] = [];
  const wanted = [
    ...time.speeds.filter((speed) => notable.has(speed.denominator)),
    ...time.speeds.filter((speed) => safe(speed)),
    ...time.speeds,
  ];
  for (const speed of wanted) {
    const words = `1/${speed.denominator}`;
    const half = (words.length * CHARACTER_PX) / 2;
    const at = Math.min(Math.max(x(speed.denominator), half), width - half);
    if (labels.every((one) => Math.abs(one.at - at) >= half + one.half + GAP_PX)) {
      labels.push({ at, half, words });
    }
  }
  return (
    <div ref={box}>
      {width > 0 && (
        <svg
          width={width}
          height={HEIGHT}
          role="img"
          aria-label={`Half the frame interval is 1/${Math.round(time.half)} second; the nearest speed is 1/${time.nearest ?? "none"}.`}
        >
          <text
            className="text-small"
            x={Math.min(Math.max(x(time.half), 90), width - 90)}
            y="12"
            textAnchor="middle"
            fill="var(--ink)"
            fontWeight="600"
          >
            half the interval, 1/{Math.round(time.half)} s
          </text>
          <path d={`M${x(time.half)} ${AXIS - 8}l-5 -24h10z`} fill="var(--ink)" />
          <line x1={PAD} x2={width - PAD} y1={AXIS} y2={AXIS} stroke="var(--line)" />
          {time.speeds.map((speed) => (
            <g key={speed.denominator} transform={`translate(${x(speed.denominator)} ${AXIS})`}>
              <line
                y1={speed.usable ? -7 : -3}
                y2={speed.usable ? 7 : 3}
                stroke={speed.usable ? "var(--ridge-4)" : "var(--ridge-2)"}
                strokeWidth="2"
              />
              {safe(speed) && (
                <circle r="6" fill="var(--lichen)" stroke="var(--lichen-deep)" strokeWidth="1.5" />
              )}
              {speed.denominator === chosen && (
                <circle r="5" fill="var(--lamp)" stroke="var(--ink)" />
              )}
            </g>
          ))}
          {labels.map((label) => (
            <text
              className="text-fine"
              key={label.words}
              x={label.at}
              y={AXIS + 23}
              textAnchor="middle"
              fill="var(--stone)"
            >
              {label.words}
            </text>
          ))}
          <text className="text-fine" x={PAD} y={HEIGHT - 4} fill="var(--stone)">
            {mainsHz === null
              ? "short marks are longer than the frame allows"
              : `ringed: no flicker under ${mainsHz} Hz lamps`}
            {chosen === null ? "" : ` · lamp: your shutter, 1/${chosen}`}
          </text>
        </svg>
      )}
    </div>
  );
}
