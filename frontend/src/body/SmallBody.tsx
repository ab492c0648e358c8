import { useSmallFigures } from "../api/figures";
import { BodyFigure } from "./BodyFigure";
import { Ground } from "./BodyView";
import { boundsOf } from "./project";

type Props = { drill: string; className?: string };

const LEAST_M = 1.95;

/** A drill's body at a glance; nothing while it is not known. */
export function SmallBody({ drill, className = "h-16 w-16" }: Props) {
  const found = useSmallFigures().data;
  const figure = found?.figures.find((one) => one.drill_key === drill);
  if (!found || !figure) return <span className={`block ${className}`} />;
  const view = figure.from_front ? "front" : "side";
  const { left, top, width, height } = boundsOf([figure.frame], view, LEAST_M);
  return (
    <svg
      viewBox={`${left} ${top} ${width} ${height}`}
      aria-hidden="true"
      className={`block flex-none ${className}`}
      preserveAspectRatio="xMidYMax meet"
    >
      <Ground left={left} width={width} />
      <BodyFigure names={found.joints} frame={figure.frame} view={view} />
    </svg>
  );
}
