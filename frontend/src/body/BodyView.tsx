import type { FigureFrame, VariationFigure } from "../api/figures";
import { BodyFigure } from "./BodyFigure";
import { boundsOf, seen, type Bounds, type Place, type View } from "./project";

const LEAST_M = 1.9;
const LEAST_ABOVE_M = 1.6;

type Props = {
  names: readonly string[];
  figure: VariationFigure;
  frame: FigureFrame;
  view: View;
  /** One scale for several drawings beside each other. */
  bounds?: Bounds;
  /** Whether what differs from the plain control is edged. */
  marked?: boolean;
};

/** A body from one side on its ground, with its start as a ghost and the way of its camera. */
export function BodyView({ names, figure, frame, view, bounds, marked = false }: Props) {
  const least = view === "above" ? LEAST_ABOVE_M : LEAST_M;
  const { left, top, width, height } = bounds ?? boundsOf(figure.frames, view, least);
  const start = figure.frames[0];
  const moves = figure.frames.length > 1 && !figure.cycle;
  return (
    <svg
      viewBox={`${left} ${top} ${width} ${height}`}
      aria-hidden="true"
      className="block size-full"
      preserveAspectRatio="xMidYMax meet"
    >
      {view !== "above" && <Ground left={left} width={width} />}
      {moves && start && view !== "above" && (
        <BodyFigure names={names} frame={start} view={view} ghost />
      )}
      <BodyFigure names={names} frame={frame} view={view} differs={marked ? figure.differs : []} />
      {moves && <Way frames={figure.frames} view={view} />}
    </svg>
  );
}

/** What a body stands on. */
export function Ground({ left, width }: Pick<Bounds, "left" | "width">) {
  return (
    <line
      x1={left}
      x2={left + width}
      y1="0.005"
      y2="0.005"
      stroke="var(--ridge-2)"
      strokeWidth="0.01"
    />
  );
}

/** The way that the camera goes, with an arrow at its end. */
function Way({ frames, view }: { frames: readonly FigureFrame[]; view: View }) {
  const lift = view === "above" ? 0 : -0.16;
  const points = frames.map((frame) => {
    const yaw = (frame.yaw_deg * Math.PI) / 180;
    const [x, y, z] = frame.camera;
    // A turn on the spot is shown by where the camera looks.
    return seen([x + 0.3 * Math.sin(yaw), y, z + 0.3 * Math.cos(yaw)] as Place, view);
  });
  const drawn = points.map(([x, y]) => [x, y + lift] as const);
  const [end, before] = [drawn.at(-1), drawn.at(-4)];
  if (!end || !before) return null;
  const turn = Math.atan2(end[1] - before[1], end[0] - before[0]);
  const head = [2.6, -2.6].map((off) => [
    end[0] + 0.06 * Math.cos(turn + off),
    end[1] + 0.06 * Math.sin(turn + off),
  ]);
  const length = Math.hypot(end[0] - (drawn[0]?.[0] ?? 0), end[1] - (drawn[0]?.[1] ?? 0));
  if (length < 0.04) return null;
  return (
    <g
      fill="none"
      stroke="var(--ember)"
      strokeWidth="0.018"
      strokeLinecap="round"
      strokeLinejoin="round"
    >
      <path d={`M${drawn.map(([x, y]) => `${x} ${y}`).join("L")}`} />
      <path d={`M${head[0]?.join(" ")}L${end.join(" ")}L${head[1]?.join(" ")}`} />
    </g>
  );
}
