import type { DrillTrial, TrialSide } from "../../../api/trials";
import { VariationBody } from "../../../body/VariationBody";
import * as format from "../../../formats";
import { useWidth } from "../../../ui/useWidth";
import { differenceScale, drawnSpan, type X } from "./layout";
import { chance, leftWords, pWords, signed, verdictOf } from "./words";

const ROW_PX = 34;

/** Each variation against the plain control: the difference with its interval, against the line of
 * no difference, and what it comes to. */
export function Differences({ trial }: { trial: DrillTrial }) {
  const [box, width] = useWidth<HTMLDivElement>();
  const x = differenceScale(trial.sides, 6, Math.max(width - 6, 7));
  const [control, ...others] = trial.sides;
  const unit = trial.figure.gust ? "gust" : "percent";
  return (
    <section aria-label="Differences" className="border-t border-line px-4 py-3 sm:px-8">
      <header className="flex flex-wrap items-baseline gap-x-4">
        <h2 className="label-wide">Against {control?.name.toLowerCase()}</h2>
        <p className="text-small text-stone">
          {unit} less is steadier; each bar holds the difference nine times in ten
        </p>
      </header>
      <div className="grid grid-cols-1 md:grid-cols-[210px_minmax(0,1fr)_290px]">
        <p className="hidden md:block" />
        <div ref={box}>
          <Axis x={x} width={width} />
        </div>
      </div>
      <ul>
        {others.map((side) => (
          <li
            key={side.key}
            data-testid={`side-${side.key}`}
            className="grid grid-cols-1 items-center gap-x-3 border-t border-line py-1 md:grid-cols-[210px_minmax(0,1fr)_290px]"
          >
            <div className="relative min-h-[56px] leading-tight md:pl-[56px]">
              {trial.drill_key !== "" && (
                <VariationBody
                  drill={trial.drill_key}
                  variation={side.key}
                  className="absolute top-0 left-0 hidden h-[56px] w-[52px] md:block"
                />
              )}
              <b className="font-semibold">{side.name}</b>
              <span className="block text-small text-stone">
                {format.takes(side.takes)}
                {side.best !== null && !side.hint && ` · steadiest ${chance(side.best)}`}
              </span>
            </div>
            <Bar side={side} x={x} width={width} />
            <p className="text-note leading-snug">
              {side.difference !== null && (
                <b className="font-semibold tabular-nums">
                  {signed(side.difference)}
                  {side.low !== null &&
                    side.high !== null &&
                    ` (${signed(side.low)} to ${signed(side.high)})`}
                </b>
              )}{" "}
              {verdictOf(side, trial.figure.gust)}
              <span className="block text-small text-stone">
                {[side.p === null ? "" : pWords(side.p), leftWords(side, trial.figure.gust)]
                  .filter(Boolean)
                  .join(", ")}
              </span>
            </p>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Axis({ x, width }: { x: X; width: number }) {
  return (
    <svg width={Math.max(width, 1)} height={18} aria-hidden="true" className="overflow-visible">
      <text className="text-fine" x={x(0)} y={12} textAnchor="middle" fill="var(--stone)">
        no difference
      </text>
      <text className="text-fine" x={0} y={12} fill="var(--stone)">
        ← steadier
      </text>
      <text className="text-fine" x={width} y={12} textAnchor="end" fill="var(--stone)">
        rougher →
      </text>
    </svg>
  );
}

/** A hint is dashed and pale: it must look like nothing. */
function Bar({ side, x, width }: { side: TrialSide; x: X; width: number }) {
  const y = ROW_PX / 2;
  const { difference, low, high } = side;
  const told = difference !== null && low !== null && high !== null;
  const span = told ? drawnSpan(low, high, x) : null;
  const clear = told && !side.hint && (high < 0 || low > 0);
  const colour = side.hint || !told ? "var(--ridge-2)" : "var(--ridge-5)";
  return (
    <svg width={Math.max(width, 1)} height={ROW_PX} aria-hidden="true">
      <line x1={x(0)} x2={x(0)} y1={0} y2={ROW_PX} stroke="var(--ink)" strokeDasharray="2 3" />
      {span && (
        <>
          <line
            x1={span.from}
            x2={span.to}
            y1={y}
            y2={y}
            stroke={colour}
            strokeWidth={clear ? 9 : 5}
            strokeDasharray={side.hint ? "3 4" : undefined}
          />
          {span.openLeft && (
            <path
              d={`M${span.from + 7} ${y - 6}l-7 6l7 6`}
              fill="none"
              stroke={colour}
              strokeWidth="2"
            />
          )}
          {span.openRight && (
            <path
              d={`M${span.to - 7} ${y - 6}l7 6l-7 6`}
              fill="none"
              stroke={colour}
              strokeWidth="2"
            />
          )}
        </>
      )}
      {difference !== null && (
        <circle
          cx={x(difference)}
          cy={y}
          r={5.5}
          fill="var(--paper)"
          stroke={colour}
          strokeWidth="2"
        />
      )}
    </svg>
  );
}
