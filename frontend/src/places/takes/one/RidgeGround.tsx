import { useId, useMemo } from "react";
import type { Judgement } from "../../../api/client";
import { ridges, weakStretches, type MARGIN, type Scales } from "../../../charts/ridge";
import { AxisText } from "../../../charts/AxisText";
import * as format from "../../../formats";

const LABEL_ROOM_PX = 110;

export type DrawingProps = {
  judgement: Judgement;
  scales: Scales;
  width: number;
  margin: typeof MARGIN;
};

/** Everything of the trace that stands still: ridges, lee, target, axes, weak parts. */
export function RidgeGround({ judgement, scales, width, margin }: DrawingProps) {
  const id = useId();
  const { trace, target, lee } = judgement;
  const { x, y } = scales;
  const shapes = useMemo(() => ridges(trace, scales), [trace, scales]);
  const weak = useMemo(() => weakStretches(trace), [trace]);
  const right = width - margin.right;
  const targetY = y(target);
  const leeWide = lee ? x(lee.end_s) - x(lee.start_s) : 0;
  return (
    <g>
      {lee && (
        <rect
          x={x(lee.start_s)}
          width={leeWide}
          y={margin.top - 14}
          height={y(0) - margin.top + 14}
          fill="var(--lichen-wash)"
        />
      )}
      {y.ticks(4).map((tick) =>
        tick === 0 || Math.abs(tick - target) < 0.6 ? null : (
          <g key={tick}>
            <line x1={margin.left} x2={right} y1={y(tick)} y2={y(tick)} stroke="var(--line)" />
            <AxisText x={margin.left - 7} y={y(tick) + 4} anchor="end" words={String(tick)} />
          </g>
        ),
      )}
      {shapes.layers.map((layer) => (
        <path key={layer.name} d={layer.path} fill={layer.colour} />
      ))}
      <clipPath id={`${id}under`}>
        <path d={shapes.under} />
      </clipPath>
      <g clipPath={`url(#${id}under)`}>
        <rect
          x={margin.left}
          width={Math.max(0, right - margin.left)}
          y={0}
          height={Math.max(0, targetY)}
          fill="url(#hatch)"
        />
      </g>
      <path d={shapes.skyline} fill="none" stroke="var(--ink)" strokeWidth="1" />
      {weak.map(([from, to]) => (
        <g key={from}>
          <rect
            x={x(from)}
            width={Math.max(2, x(to) - x(from))}
            y={margin.top}
            height={y(0) - margin.top}
            fill="var(--paper)"
            fillOpacity="0.72"
          />
          <AxisText x={(x(from) + x(to)) / 2} y={y(0) - 6} anchor="middle" words="low trust" />
        </g>
      ))}
      {lee && (
        <g stroke="var(--lichen-deep)" strokeWidth="1.5">
          <line x1={x(lee.start_s)} x2={x(lee.start_s)} y1={margin.top - 14} y2={y(0)} />
          <line x1={x(lee.end_s)} x2={x(lee.end_s)} y1={margin.top - 14} y2={y(0)} />
          {leeWide > LABEL_ROOM_PX && (
            <text
              x={x(lee.start_s) + 8}
              y={margin.top}
              stroke="none"
              fill="var(--lichen-deep)"
              fontWeight="700"
              className="[font-stretch:118%] text-fine"
            >
              LEE {format.span(lee.start_s, lee.end_s)}
            </text>
          )}
        </g>
      )}
      <line
        x1={margin.left}
        x2={right}
        y1={targetY}
        y2={targetY}
        stroke="var(--ink)"
        strokeDasharray="1.5 2.5"
      />
      <AxisText
        x={margin.left - 7}
        y={targetY + 4}
        anchor="end"
        words={format.gust(target)}
        strong
      />
      {margin.right > 40 && (
        <AxisText x={right + 8} y={targetY + 4} anchor="start" words="target" strong />
      )}
      <line x1={margin.left} x2={right} y1={y(0)} y2={y(0)} stroke="var(--stone)" />
      {x.ticks(Math.max(3, Math.min(10, Math.floor(width / 90)))).map((tick, i) => (
        <g key={tick}>
          <line x1={x(tick)} x2={x(tick)} y1={y(0)} y2={y(0) + 4} stroke="var(--stone)" />
          <AxisText
            x={x(tick)}
            y={y(0) + 17}
            anchor="middle"
            words={i === 0 ? `${tick} s` : String(tick)}
          />
        </g>
      ))}
    </g>
  );
}
