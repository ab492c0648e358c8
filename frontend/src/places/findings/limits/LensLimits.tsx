import type { Limits, Technique } from "../../../api/limits";
import { TicksAcross } from "../../../charts/Ticks";
import * as format from "../../../formats";
import { useWidth } from "../../../ui/useWidth";
import { chanceSlope, focalScale, TICKS_MM, type LogX } from "./layout";

const ROW_PX = 34;
const LENS_PX = 16;
const LABEL_PX = 210;
const NARROW = 560;

/** For each technique the chance of passing, falling as the lens gets longer, against the lenses of
 * the kit; a mark where four takes in five still pass. */
export function LensLimits({ limits }: { limits: Limits }) {
  const [box, width] = useWidth<HTMLDivElement>();
  const narrow = width < NARROW;
  const aside = narrow ? 0 : LABEL_PX;
  const x = focalScale(limits.techniques, aside, width - 8);
  const tall = ROW_PX + (narrow ? 16 : 0);
  const foot = limits.techniques.length * tall;
  const total = foot + 26 + limits.lenses.length * LENS_PX;
  return (
    <section aria-label="Longest lens" className="px-4 py-3 sm:px-8">
      <h2 className="label-wide">Longest lens</h2>
      <p className="mb-2 text-note text-stone">
        Each slope is the chance that a take passes; its mark is where four takes in five still do.
      </p>
      <div ref={box}>
        {width > 0 && (
          <svg width={width} height={total} role="img" aria-label={spoken(limits)}>
            <TicksAcross ticks={TICKS_MM} x={x} y={foot + 16} lineTo={foot} />
            {limits.techniques.map((one, k) => (
              <Slope
                key={one.key}
                one={one}
                x={x}
                top={k * tall + (narrow ? 16 : 0)}
                aside={aside}
                width={width}
              />
            ))}
            {limits.lenses.map((lens, k) => (
              <g key={lens.name} transform={`translate(0 ${foot + 30 + k * LENS_PX})`}>
                <line
                  x1={x(lens.low_mm) - 3}
                  x2={x(lens.high_mm) + 3}
                  stroke="var(--ridge-4)"
                  strokeWidth="5"
                />
                <text className="text-fine" x={x(lens.high_mm) + 9} y="4" fill="var(--stone)">
                  {lens.name}
                </text>
              </g>
            ))}
          </svg>
        )}
      </div>
    </section>
  );
}

type SlopeProps = { one: Technique; x: LogX; top: number; aside: number; width: number };

function Slope({ one, x, top, aside, width }: SlopeProps) {
  const foot = top + ROW_PX - 4;
  const [least, most] = x.domain() as [number, number];
  const mark = x(Math.max(least, Math.min(most, one.longest_mm)));
  return (
    <g>
      <path
        d={chanceSlope(one, x, foot, ROW_PX - 9)}
        fill={one.hint ? "var(--ridge-1)" : "var(--ridge-3)"}
      />
      <line x1={aside} x2={width} y1={foot} y2={foot} stroke="var(--ridge-2)" />
      <line x1={mark} x2={mark} y1={top + 2} y2={foot} stroke="var(--ink)" strokeWidth="2" />
      <text className="text-small" x={mark + 5} y={top + 13} fontWeight="650" fill="var(--ink)">
        {format.longestLens(one.longest_mm)}
      </text>
      <text x={0} y={aside > 0 ? foot - 10 : top - 3} className="text-note" fill="var(--ink)">
        {shortened(one.name, 26)}
      </text>
      {aside > 0 && (
        <text x={0} y={foot + 2} className="text-fine" fill="var(--stone)">
          {shortened(`${one.hint ? "a hint of " : ""}${format.takes(one.takes)}, ${one.drill}`, 34)}
        </text>
      )}
    </g>
  );
}

const shortened = (text: string, most: number) =>
  text.length > most ? `${text.slice(0, most - 1)}…` : text;

const spoken = (limits: Limits) =>
  limits.techniques
    .map(
      (one) =>
        `${one.name}: up to ${Math.floor(one.longest_mm)} millimetres, of ${format.takes(one.takes)}${one.hint ? ", a hint" : ""}.`,
    )
    .join(" ");
