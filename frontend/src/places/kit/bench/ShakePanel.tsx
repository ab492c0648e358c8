import { scaleLinear, scaleLog } from "d3-scale";
import { area, line } from "d3-shape";
import { useId } from "react";
import type { BenchAnswer } from "../../../api/kit";
import * as format from "../../../formats";
import { Facts } from "../../../ui/Facts";
import { Segments } from "../../../ui/Segments";
import { useWidth } from "../../../ui/useWidth";
import { NoDrawing, PanelFrame } from "./PanelFrame";
import type { PanelProps } from "./panel";
import type { Shake } from "./types";

const TYPICAL = [
  { value: "standing", words: "Standing" },
  { value: "walking", words: "Walking" },
] as const;
const HEIGHT = 340;
const MARGIN = { left: 34, right: 14, top: 12, bottom: 28 };
const TICKS_MM = [8, 12, 16, 24, 35, 50, 85, 135, 200, 400, 800];
const REACH_PX = 15;

/** The same hand at every lens: where the target is crossed, and which lenses still pass. */
export function ShakePanel({ answer, setup, change }: PanelProps) {
  const { shake } = answer;
  if (!shake) {
    return (
      <PanelFrame words="Shake at this lens" drawing={<NoDrawing words="No curve can be drawn." />}>
        {null}
      </PanelFrame>
    );
  }
  const { curve, hand } = shake;
  const kind = setup.bench.shake.typical;
  const takes = format.counted(hand.takes, `${kind} take`);
  const source = {
    setup: `From ${takes} filmed with this set-up.`,
    all: `From all ${takes}; three with this set-up make it its own.`,
    typical: `Typical figures, until you have ${kind} takes of your own.`,
  }[answer.source];
  const over = shake.gust > curve.target;
  return (
    <PanelFrame
      words="Shake at this lens"
      drawing={<LensCurve shake={shake} dots={answer.dots} reaches={answer.reaches} />}
    >
      <p className="font-semibold">{source}</p>
      <Segments
        label="Kind of take"
        value={kind}
        options={TYPICAL}
        onChange={(typical) => change({ shake: { typical } })}
      />
      <Facts
        facts={[
          { words: "Body speed", value: format.degreesASecond(hand.body_deg_s) },
          {
            words: `Gust at ${format.millimetres(Math.round(shake.focal_eq_mm))}`,
            value: format.gust(shake.gust),
            warns: over,
          },
          { words: "Target", value: format.gust(curve.target) },
          { words: "Longest lens that usually passes", value: focal(curve.longest_mm) },
          { words: "Longest that four takes in five pass", value: focal(curve.safe_mm) },
        ]}
      />
      <p className="text-note text-stone">
        {over
          ? `At ${format.millimetres(Math.round(shake.focal_eq_mm))} the usual take is over target: go wider, brace, or plan to slow it.`
          : "The usual take passes with this lens."}{" "}
        The band shows how far takes differ.
      </p>
    </PanelFrame>
  );
}

const focal = (mm: number | null) => (mm === null ? "none" : format.longestLens(mm));

type CurveProps = Pick<BenchAnswer, "dots" | "reaches"> & { shake: Shake };

function LensCurve({ shake, dots, reaches }: CurveProps) {
  const [box, width] = useWidth<HTMLDivElement>();
  const id = useId();
  const { curve } = shake;
  const foot = MARGIN.bottom + reaches.length * REACH_PX;
  const total = HEIGHT + reaches.length * REACH_PX;
  const x = scaleLog(
    [curve.focal_mm[0] ?? 12, curve.focal_mm.at(-1) ?? 200],
    [MARGIN.left, Math.max(width - MARGIN.right, MARGIN.left + 1)],
  );
  const y = scaleLinear([0, 10], [total - foot, MARGIN.top]);
  const index = curve.focal_mm.map((_, i) => i);
  const at = (i: number) => x(curve.focal_mm[i] ?? 1);
  const band = area<number>().x(at).y0((i) => y(curve.low[i] ?? 0)).y1((i) => y(curve.high[i] ?? 0)); // prettier-ignore
  const usual = line<number>().x(at).y((i) => y(curve.gust[i] ?? 0)); // prettier-ignore
  const under = area<number>().x(at).y0(y(0)).y1((i) => y(curve.gust[i] ?? 0)); // prettier-ignore
  const inside = (mm: number) => Math.max(curve.focal_mm[0] ?? 1, Math.min(curve.focal_mm.at(-1) ?? 1, mm)); // prettier-ignore
  return (
    <div ref={box}>
      {width > 0 && (
        <svg width={width} height={total} role="img" aria-label={spoken(shake)}>
          <clipPath id={id}>
            <rect
              x={MARGIN.left}
              y={MARGIN.top}
              width={width}
              height={y(curve.target) - MARGIN.top}
            />
          </clipPath>
          {curve.longest_mm !== null && (
            <rect
              x={MARGIN.left}
              y={MARGIN.top}
              width={x(inside(curve.longest_mm)) - MARGIN.left}
              height={y(0) - MARGIN.top}
              fill="var(--lichen-wash)"
            />
          )}
          <path d={under(index) ?? ""} fill="var(--ridge-1)" />
          <path d={band(index) ?? ""} fill="var(--ridge-2)" fillOpacity="0.55" />
          <path d={under(index) ?? ""} fill="url(#hatch)" clipPath={`url(#${id})`} />
          <path d={usual(index) ?? ""} fill="none" stroke="var(--ridge-5)" strokeWidth="2" />
          {dots.map((dot, k) => (
            <circle
              key={k}
              cx={x(inside(dot.focal_mm))}
              cy={y(dot.gust)}
              r="4"
              fill="var(--ridge-4)"
              stroke="var(--paper)"
            />
          ))}
          <line
            x1={MARGIN.left}
            x2={width - MARGIN.right}
            y1={y(curve.target)}
            y2={y(curve.target)}
            stroke="var(--ink)"
            strokeDasharray="2 3"
          />
          <text
            className="text-small"
            x={MARGIN.left + 6}
            y={y(curve.target) - 5}
            fontWeight="650"
            fill="var(--ink)"
          >
            target {format.gust(curve.target)}
          </text>
          <Here shake={shake} x={x(inside(shake.focal_eq_mm))} y={y} top={MARGIN.top} />
          {[0, 2, 4, 6, 8, 10].map((gust) => (
            <text
              className="text-small"
              key={gust}
              x={MARGIN.left - 8}
              y={y(gust) + 4}
              textAnchor="end"
              fill="var(--stone)"
            >
              {gust}
            </text>
          ))}
          <line
            x1={MARGIN.left}
            x2={width - MARGIN.right}
            y1={y(0)}
            y2={y(0)}
            stroke="var(--line)"
          />
          {TICKS_MM.filter((mm) => inside(mm) === mm).map((mm) => (
            <text
              className="text-small"
              key={mm}
              x={x(mm)}
              y={y(0) + 16}
              textAnchor="middle"
              fill="var(--stone)"
            >
              {mm}
            </text>
          ))}
          {reaches.map((reach, k) => (
            <g key={reach.name} transform={`translate(0 ${y(0) + 32 + k * REACH_PX})`}>
              <line
                x1={x(inside(reach.low_mm)) - 2}
                x2={x(inside(reach.high_mm)) + 2}
                stroke="var(--ridge-4)"
                strokeWidth="4"
              />
              <ReachName
                name={reach.name}
                from={x(inside(reach.low_mm))}
                to={x(inside(reach.high_mm))}
                width={width}
              />
            </g>
          ))}
        </svg>
      )}
    </div>
  );
}

type NameProps = { name: string; from: number; to: number; width: number };

/** Beside its bar, on the side where there is room. */
function ReachName({ name, from, to, width }: NameProps) {
  const left = width - to < from;
  return (
    <text
      className="text-fine"
      x={left ? from - 8 : to + 8}
      y="4"
      textAnchor={left ? "end" : "start"}
      fill="var(--stone)"
    >
      {name}
    </text>
  );
}

type HereProps = { shake: Shake; x: number; y: (gust: number) => number; top: number };

function Here({ shake, x, y, top }: HereProps) {
  return (
    <g>
      <line x1={x} x2={x} y1={top} y2={y(0)} stroke="var(--lamp)" strokeWidth="2" />
      <circle cx={x} cy={y(shake.gust)} r="5.5" fill="var(--lamp)" stroke="var(--ink)" />
    </g>
  );
}

function spoken(shake: Shake): string {
  return `Gust ${format.gust(shake.gust)} at ${Math.round(shake.focal_eq_mm)} millimetres, target ${format.gust(shake.curve.target)}, longest lens that usually passes ${focal(shake.curve.longest_mm)}.`;
}
