import { Link } from "react-router";
import type { Season } from "../../../api/progress";
import { TicksAcross } from "../../../charts/Ticks";
import * as format from "../../../formats";
import { useWidth } from "../../../ui/useWidth";
import {
  densityOf,
  filledWeeks,
  middleOf,
  PEAK_PX,
  ridgeColour,
  ridgeLine,
  ridgePath,
  ROW_PX,
  valueScale,
} from "./layout";
import { practised } from "./words";

const FOOT_PX = 30;
const NAME_PX = 118;

/** Weeks as ridges one behind another, the newest in front: where its takes lie along the scale. */
export function Landscape({ season }: { season: Season }) {
  const [box, width] = useWidth<HTMLDivElement>();
  const weeks = filledWeeks(season);
  const { chosen } = season;
  const mark = chosen?.figure.gust && chosen.figure.key === "gust" ? chosen.target : null;
  const narrow = width < 560;
  const left = narrow ? 8 : NAME_PX;
  const x = valueScale(weeks, mark, left, width - 8);
  const footOf = (index: number) => PEAK_PX + 8 + index * (ROW_PX + (narrow ? 14 : 0));
  const foot = footOf(weeks.length - 1);
  const height = foot + FOOT_PX;
  return (
    <figure aria-label={spoken(season)} ref={box} className="relative min-w-0">
      {width > 0 && (
        <svg width={width} height={height} aria-hidden="true" className="block">
          {weeks.map((week, index) => {
            const heights = densityOf(week.values, x);
            return (
              <g key={week.begins}>
                <path
                  d={ridgePath(heights, x, footOf(index))}
                  fill={ridgeColour(index, weeks.length)}
                  fillOpacity="0.88"
                />
                <path d={ridgeLine(heights, x, footOf(index))} fill="none" stroke="var(--paper)" />
                <text
                  className="text-small"
                  x={narrow ? left : 0}
                  y={footOf(index) + (narrow ? 13 : -4)}
                  fill="var(--ink)"
                >
                  {format.shortDay(`${week.begins}T00:00`)}
                  <tspan fill="var(--stone)">
                    {" "}
                    {narrow
                      ? `${format.takes(week.takes)}, ${practised(week.minutes)}`
                      : format.takes(week.takes)}
                  </tspan>
                </text>
              </g>
            );
          })}
          {weeks.map((week, index) => (
            <g key={week.begins}>
              {week.values.map((value, k) => (
                <circle
                  key={week.take_ids[k]}
                  cx={x(value)}
                  cy={footOf(index) - 4}
                  r="2"
                  fill="var(--paper)"
                />
              ))}
              <path
                d={`M${x(middleOf(week.values))} ${footOf(index) - 12}v12`}
                stroke="var(--lamp)"
                strokeWidth="3"
              />
            </g>
          ))}
          {mark !== null && <Mark x={x(mark)} foot={foot} target={mark} />}
          {mark === null && chosen === null && <Usual x={x(0)} foot={foot} />}
          <TicksAcross ticks={x.ticks(narrow ? 5 : 9)} x={x} y={height - 2} />
        </svg>
      )}
    </figure>
  );
}

function Mark({ x, foot, target }: { x: number; foot: number; target: number }) {
  return (
    <g>
      <line x1={x} x2={x} y1={14} y2={foot} stroke="var(--ember)" strokeWidth="1.5" />
      <text className="text-small" x={x + 5} y={12} fill="var(--ember)">
        mark {format.gust(target)}: over it →
      </text>
    </g>
  );
}

function Usual({ x, foot }: { x: number; foot: number }) {
  return (
    <g>
      <line x1={x} x2={x} y1={14} y2={foot} stroke="var(--ink)" strokeDasharray="2 3" />
      <text className="text-small" x={x} y={12} fill="var(--stone)" textAnchor="middle">
        ← steadier · usual for its technique · rougher →
      </text>
    </g>
  );
}

function spoken(season: Season): string {
  const of = season.chosen ? season.chosen.figure.words : "Against what is usual";
  const told = filledWeeks(season).map(
    (week) =>
      `week of ${format.shortDay(`${week.begins}T00:00`)}: ${middleOf(week.values).toFixed(1)} in the middle of ${format.takes(week.values.length)}, best ${Math.min(...week.values).toFixed(1)}`,
  );
  return `${of} by week. ${told.join("; ")}.`;
}

/** The takes that hold the records, a drill each. */
export function Records({ season, onOpen }: { season: Season; onOpen: (key: string) => void }) {
  const held = season.drills.filter((one) => one.record !== null);
  if (held.length === 0) return null;
  return (
    <section aria-label="Records" className="border-t border-line px-4 py-3 sm:px-8">
      <h2 className="label-wide">Records</h2>
      <p className="mb-1 text-small text-stone">
        The calmest take of each drill, of those that are trusted from end to end.
      </p>
      <ul className="grid grid-cols-1 gap-x-8 lg:grid-cols-2">
        {held.map(
          (one) =>
            one.record && (
              <li
                key={one.drill_key}
                className="flex items-baseline gap-3 border-t border-line py-1.5"
              >
                <b className="w-9 flex-none text-large leading-none font-semibold tabular-nums">
                  {format.gust(one.record.value)}
                </b>
                <span className="min-w-0">
                  <button
                    type="button"
                    className="text-left font-medium hover:underline"
                    onClick={() => onOpen(one.drill_key)}
                  >
                    {one.drill}
                  </button>
                  <span className="block text-small text-stone">
                    <Link to={`/takes/${one.record.take_id}`} className="underline">
                      {one.record.name}
                    </Link>
                    , {format.shortDay(one.record.filmed_at)}
                    {one.figure.key !== "gust" && `, ${one.figure.words.toLowerCase()}`}
                  </span>
                </span>
              </li>
            ),
        )}
      </ul>
    </section>
  );
}
