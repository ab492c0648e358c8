import type { HandAnswer, HandAsked } from "../../../api/hand";
import { TicksAcross, TicksUp } from "../../../charts/Ticks";
import * as format from "../../../formats";
import { useWidth } from "../../../ui/useWidth";
import { TICKS_MM } from "../limits/layout";
import { FilmIt } from "./FilmIt";
import { gustScale, lensCurve, lensScale } from "./layout";

const HEIGHT = 260;

type Props = { answer: HandAnswer; asked: HandAsked };

/** What this hand would read at every lens, with the band in which four takes in five lie. */
export function LensPrediction({ answer, asked }: Props) {
  const focal = asked.focal_eq_mm;
  const [box, width] = useWidth<HTMLDivElement>();
  const x = lensScale(answer, 30, width - 8);
  const y = gustScale(HEIGHT - 40, 8);
  const { band, line } = lensCurve(answer, x, y);
  const { here } = answer;
  return (
    <section aria-label="Through another lens" className="min-w-0">
      <header className="flex items-baseline justify-between gap-3">
        <h2 className="label-wide">Through another lens</h2>
        {answer.chosen !== null && <FilmIt technique={answer.chosen} asked={asked} />}
      </header>
      {here && (
        <p className="text-note" aria-live="polite" data-testid="predicted">
          At {format.millimetres(focal)} it would read{" "}
          <b className="font-semibold">{format.gust(here.gust)}</b>, four takes in five between{" "}
          {format.gust(here.low)} and {format.gust(here.high)}.{" "}
          <span className="text-stone">
            From {format.takes(answer.takes)} at{" "}
            {answer.filmed_mm.map((mm) => format.millimetres(mm)).join(", ")}
            {answer.error !== null &&
              `; each predicted from the others, they were ${answer.error.toFixed(2)} off in the middle`}
            .
          </span>
        </p>
      )}
      <div ref={box}>
        {width > 0 && (
          <svg width={width} height={HEIGHT} aria-hidden="true">
            <TicksUp ticks={[0, 2, 4, 6, 8, 10]} y={y} from={30} to={width} />
            <path d={band} fill="var(--ridge-2)" fillOpacity="0.6" />
            <path d={line} fill="none" stroke="var(--ridge-5)" strokeWidth="2" />
            {answer.filmed_mm.map((mm) => (
              <line
                key={mm}
                x1={x(mm)}
                x2={x(mm)}
                y1={y(0)}
                y2={y(0) - 8}
                stroke="var(--ink)"
                strokeWidth="2"
              />
            ))}
            {here && (
              <g>
                <line
                  x1={x(focal)}
                  x2={x(focal)}
                  y1={8}
                  y2={y(0)}
                  stroke="var(--lamp)"
                  strokeWidth="2"
                />
                <circle
                  cx={x(focal)}
                  cy={y(here.gust)}
                  r="6"
                  fill="var(--lamp)"
                  stroke="var(--ink)"
                />
              </g>
            )}
            <TicksAcross ticks={TICKS_MM} x={x} y={HEIGHT - 22} />
          </svg>
        )}
      </div>
    </section>
  );
}
