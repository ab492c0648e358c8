import { scaleLinear } from "d3-scale";
import type { LogPreview } from "../../../api/logs";
import { linesIn, spanOf } from "../../../charts/lines";
import { useWidth } from "../../../ui/useWidth";
import type { Stretch } from "./stretch";

const HEIGHT = 90;
const PARTS = [
  { words: "pan", colour: "var(--ridge-5)" },
  { words: "tilt", colour: "var(--ridge-3)" },
  { words: "roll", colour: "var(--lamp)" },
] as const;

type Props = { preview: LogPreview; kept: Stretch | null };

/** The three turning rates of a log, over time; what is not kept stands back. */
export function RatesDrawing({ preview, kept }: Props) {
  const [box, width] = useWidth<HTMLDivElement>();
  const series = [preview.pan_deg_s, preview.tilt_deg_s, preview.roll_deg_s].map((values) => ({
    t: preview.t_s,
    values,
  }));
  const most = Math.max(0, ...series.flatMap((one) => one.values.map(Math.abs)));
  const span = spanOf(series);
  const paths = linesIn(series, span, width, HEIGHT);
  const x = scaleLinear([...span], [0, width]);
  const aside = kept
    ? ([
        [0, x(span[0] + kept[0])],
        [x(span[0] + kept[1]), width],
      ] as const)
    : [];
  return (
    <div ref={box}>
      {width > 0 && (
        <svg
          width={width}
          height={HEIGHT}
          role="img"
          aria-label={`Turning rates, up to ${most.toFixed(0)} degrees a second`}
          className="border-y border-line"
        >
          {paths.map((path, index) => (
            <path
              key={index}
              d={path}
              fill="none"
              stroke={PARTS[index]?.colour}
              strokeWidth="1.2"
            />
          ))}
          {aside.map(([from, to]) => (
            <rect
              key={from}
              x={from}
              width={Math.max(0, to - from)}
              height={HEIGHT}
              fill="var(--paper)"
              opacity="0.75"
            />
          ))}
        </svg>
      )}
      <p className="flex gap-3 text-small text-stone">
        {PARTS.map((part) => (
          <span key={part.words} className="flex items-center gap-1.5">
            <i className="h-0.5 w-4" style={{ background: part.colour }} />
            {part.words}
          </span>
        ))}
        <span className="ml-auto">up to {most.toFixed(0)} °/s</span>
      </p>
    </div>
  );
}
