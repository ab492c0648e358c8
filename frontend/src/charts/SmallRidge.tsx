import { useId, useMemo } from "react";
import { smallRidge } from "./smallRidge";

type Props = { encoded: string; target: number; width: number; height: number };

/** A take's ridge beside its name; what rises over the target line is hatched. */
export function SmallRidge({ encoded, target, width, height }: Props) {
  const id = useId();
  const shape = useMemo(
    () => (encoded ? smallRidge(encoded, target, width, height) : null),
    [encoded, target, width, height],
  );
  if (!shape) return <div style={{ width, height }} className="border-b border-line" />;
  return (
    <svg width={width} height={height} viewBox={`0 0 ${width} ${height}`} aria-hidden="true">
      <clipPath id={`${id}c`}>
        <path d={shape.under} />
      </clipPath>
      {shape.layers.map((layer) => (
        <path key={layer.name} d={layer.path} fill={layer.colour} />
      ))}
      <g clipPath={`url(#${id}c)`}>
        <rect width={width} height={shape.targetY} fill="url(#hatch)" />
      </g>
      <line
        x2={width}
        y1={shape.targetY}
        y2={shape.targetY}
        stroke="var(--ink)"
        strokeDasharray="1.5 2"
      />
    </svg>
  );
}

/** The hatching of what is over target; once a page. */
export function HatchPattern() {
  return (
    <svg width="0" height="0" className="absolute" aria-hidden="true">
      <pattern
        id="hatch"
        width="6"
        height="6"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <rect width="6" height="6" fill="var(--ember)" fillOpacity="0.28" />
        <rect width="1.6" height="6" fill="var(--ember)" />
      </pattern>
    </svg>
  );
}
