import { useMemo, type KeyboardEvent } from "react";
import { useDrag } from "../../../ui/useDrag";
import type { Judgement, TraceColumns } from "../../../api/client";
import { BANDS } from "../../../charts/bands";
import { gustAt, MARGIN, NARROW_MARGIN, scalesFor, type Scales } from "../../../charts/ridge";
import * as format from "../../../formats";
import { useWidth } from "../../../ui/useWidth";
import { usePlayhead, useTime } from "./playhead";
import { RidgeGround, type DrawingProps } from "./RidgeGround";

const HEIGHT = 206;
const NARROW_PX = 640;

/** The ridge line of a take: drag or click it to move through the picture. */
export function RidgeTrace({ judgement }: { judgement: Judgement }) {
  const [box, width] = useWidth<HTMLDivElement>();
  const margin = width < NARROW_PX ? NARROW_MARGIN : MARGIN;
  const { trace, target } = judgement;
  const scales = useMemo(
    () => scalesFor(trace, target, { width, height: HEIGHT, margin }),
    [trace, target, width, margin],
  );
  return (
    <section
      aria-label="Gust over time"
      className="relative border-y border-line bg-paper"
      ref={box}
      style={{ height: HEIGHT + 6 }}
    >
      <Legend />
      {width > 0 && <Drawing judgement={judgement} scales={scales} width={width} margin={margin} />}
    </section>
  );
}

function Legend() {
  return (
    <ul className="pointer-events-none absolute top-1.5 right-[72px] z-(--layer-raised) hidden gap-3 text-fine text-stone sm:flex">
      {BANDS.map((band) => (
        <li key={band.name} className="flex items-center gap-1.5">
          <i className="size-2.5 rounded-[1px]" style={{ background: band.colour }} />
          {band.name}
        </li>
      ))}
    </ul>
  );
}

function Drawing({ judgement, scales, width, margin }: DrawingProps) {
  const playhead = usePlayhead();
  const { x } = scales;
  const seek = (px: number) => {
    const [first = 0, end = 0] = x.domain();
    playhead.seek(Math.max(first, Math.min(end, x.invert(px))));
    return true;
  };
  const drag = useDrag({ onStart: (at) => seek(at.x), onMove: (at) => seek(at.x) });
  return (
    <svg
      width={width}
      height={HEIGHT}
      className="absolute bottom-0 left-0 cursor-ew-resize touch-pan-y select-none"
      {...drag}
    >
      <RidgeGround judgement={judgement} scales={scales} width={width} margin={margin} />
      <Head trace={judgement.trace} scales={scales} />
    </svg>
  );
}

const SLIDE_STEP_S = 0.1;

function Head({ trace, scales }: { trace: TraceColumns; scales: Scales }) {
  const playhead = usePlayhead();
  const t = useTime();
  const { x, y } = scales;
  const [first = 0, end = 0] = x.domain();
  const here = gustAt(trace, t);
  const at = x(Math.max(first, Math.min(t, end)));
  const keys = (event: KeyboardEvent) => {
    const jump: Record<string, number> = {
      ArrowRight: t + SLIDE_STEP_S,
      ArrowUp: t + SLIDE_STEP_S,
      ArrowLeft: t - SLIDE_STEP_S,
      ArrowDown: t - SLIDE_STEP_S,
      PageUp: t + 1,
      PageDown: t - 1,
      Home: first,
      End: end,
    };
    const next = jump[event.key];
    if (next === undefined) return;
    event.preventDefault();
    playhead.seek(Math.max(first, Math.min(end, next)));
  };
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label="Place in the take"
      aria-valuemin={Number(first.toFixed(2))}
      aria-valuemax={Number(end.toFixed(2))}
      aria-valuenow={Number(t.toFixed(2))}
      aria-valuetext={`${t.toFixed(1)} seconds, gust ${format.gust(here)}`}
      onKeyDown={keys}
      className="outline-none [&:focus-visible>circle]:stroke-[3]"
    >
      <line x1={at} x2={at} y1={0} y2={y(0) + 3} stroke="var(--lamp)" strokeWidth="2.5" />
      <circle
        cx={at}
        cy={y(here ?? 0)}
        r="5"
        fill="var(--lamp)"
        stroke="var(--ink)"
        strokeWidth="1"
      />
    </g>
  );
}
