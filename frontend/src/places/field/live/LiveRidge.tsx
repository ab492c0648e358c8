import { useId } from "react";
import { ridges, scalesFor } from "../../../charts/ridge";
import { SHOWN_S, type History } from "../../../live/liveHistory";
import { useMedia } from "../../../ui/useMedia";
import { useWidth } from "../../../ui/useWidth";

const HEIGHT = 150;
/** On a phone that is held across. */
const LOW_HEIGHT = 84;
const MARGIN = { left: 0, right: 0, top: 8, bottom: 1 };

/** The ridge of the last half minute, running, against the target. */
export function LiveRidge({ history, target }: { history: History; target: number }) {
  const id = useId();
  const [box, width] = useWidth<HTMLDivElement>();
  const height = useMedia("(max-height: 480px)") ? LOW_HEIGHT : HEIGHT;
  const { trace } = history;
  const last = trace.t_s.at(-1) ?? 0;
  const scales = scalesFor(trace, target, { width, height, margin: MARGIN });
  scales.x.domain([Math.max(0, last - SHOWN_S), Math.max(last, SHOWN_S)]);
  const { layers, under } = ridges(trace, scales);
  const level = scales.y(target);
  return (
    <div ref={box} className="w-full overflow-hidden">
      <svg width={width} height={height} aria-hidden="true" className="block">
        <clipPath id={`${id}c`}>
          <path d={under} />
        </clipPath>
        {layers.map((layer) => (
          <path key={layer.name} d={layer.path} fill={layer.colour} />
        ))}
        <g clipPath={`url(#${id}c)`}>
          <rect width={width} height={level} fill="url(#hatch)" />
        </g>
        <line x2={width} y1={level} y2={level} stroke="var(--ink)" strokeDasharray="2 3" />
        <line x2={width} y1={height - 0.5} y2={height - 0.5} stroke="var(--line)" />
      </svg>
    </div>
  );
}
