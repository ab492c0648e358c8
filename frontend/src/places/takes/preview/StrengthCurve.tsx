import type { KeyboardEvent } from "react";
import type { Strength } from "../../../api/decisions";
import { AxisText } from "../../../charts/AxisText";
import * as format from "../../../formats";
import { CURVE, curvePath, curveScales, LIGHT_PCT, MEDIUM_PCT, stepped } from "./curve";

type Props = {
  strengths: Strength[];
  corner: number | null;
  target: number;
  budget: number;
  onChoose: (corner_hz: number) => void;
};

/** How much crop takes how much shake away; choose a strength on it. */
export function StrengthCurve({ strengths, corner, target, budget, onChoose }: Props) {
  const scales = curveScales(strengths, target, budget);
  const { x, y } = scales;
  const [, right = 0] = x.range();
  const chosen = strengths.find((one) => one.corner_hz === corner);
  const step = (event: KeyboardEvent) => {
    const by = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
    const next = by === undefined ? null : stepped(strengths, corner, by);
    if (next === null) return;
    event.preventDefault();
    onChoose(next);
  };
  return (
    <svg viewBox={`0 0 ${CURVE.width} ${CURVE.height}`} className="w-full max-w-[460px]">
      <rect
        x={CURVE.left}
        width={right - CURVE.left}
        y={y(target)}
        height={y(0) - y(target)}
        fill="var(--lichen-wash)"
      />
      {[LIGHT_PCT, MEDIUM_PCT].map((edge) =>
        x(edge) > right ? null : (
          <line
            key={edge}
            x1={x(edge)}
            x2={x(edge)}
            y1={CURVE.top}
            y2={y(0)}
            stroke="var(--line)"
          />
        ),
      )}
      <AxisText x={CURVE.left + 4} y={CURVE.top + 9} words="light" />
      {x(LIGHT_PCT) < right - 50 && (
        <AxisText x={x(LIGHT_PCT) + 4} y={CURVE.top + 9} words="medium" />
      )}
      {x(MEDIUM_PCT) < right - 40 && (
        <AxisText x={x(MEDIUM_PCT) + 4} y={CURVE.top + 9} words="strong" />
      )}
      <line
        x1={CURVE.left}
        x2={right}
        y1={y(target)}
        y2={y(target)}
        stroke="var(--ink)"
        strokeDasharray="1.5 2.5"
      />
      <AxisText
        x={CURVE.left - 5}
        y={y(target) + 4}
        anchor="end"
        words={format.gust(target)}
        strong
      />
      {x(budget) <= right && (
        <g>
          <line
            x1={x(budget)}
            x2={x(budget)}
            y1={CURVE.top}
            y2={y(0)}
            stroke="var(--ember)"
            strokeWidth="1.5"
          />
          <AxisText x={x(budget) - 4} y={y(0) - 5} anchor="end" words="brief’s crop" />
        </g>
      )}
      <path d={curvePath(strengths, scales)} fill="none" stroke="var(--ridge-4)" strokeWidth="2" />
      {strengths.map((one) => (
        <circle
          key={one.corner_hz}
          cx={x(one.crop_pct)}
          cy={y(one.gust)}
          r={4}
          fill={one.passes ? "var(--lichen-deep)" : "var(--paper)"}
          stroke="var(--ridge-5)"
          className="cursor-pointer"
          onClick={() => onChoose(one.corner_hz)}
        />
      ))}
      <line x1={CURVE.left} x2={right} y1={y(0)} y2={y(0)} stroke="var(--stone)" />
      {x.ticks(5).map((tick) => (
        <AxisText key={tick} x={x(tick)} y={y(0) + 14} anchor="middle" words={`${tick} %`} />
      ))}
      <AxisText x={right} y={CURVE.height - 3} anchor="end" words="crop, of the long side" />
      <AxisText x={2} y={CURVE.top + 2} words="gust" />
      <g
        role="slider"
        tabIndex={0}
        aria-label="Strength of the polish"
        aria-valuemin={0}
        aria-valuemax={strengths.length - 1}
        aria-valuenow={strengths.findIndex((one) => one.corner_hz === corner)}
        aria-valuetext={
          chosen
            ? `${chosen.name}, ${format.percent(chosen.crop_pct)} crop, gust ${format.gust(chosen.gust)}`
            : "as the remedy says"
        }
        onKeyDown={step}
        className="outline-none [&:focus-visible>circle]:stroke-[3]"
      >
        {chosen && (
          <circle
            cx={x(chosen.crop_pct)}
            cy={y(chosen.gust)}
            r="6.5"
            fill="var(--lamp)"
            stroke="var(--ink)"
          />
        )}
      </g>
    </svg>
  );
}
