import { useUnits } from "../../../ui/useUnits";
import { across, halfView, heading, MOVES, type MoveAsk } from "./moves";
import type { Move } from "./types";

const SKY = 34;
const FOOT = 38;
const WEDGE_PX = 74;

type Props = {
  move: Move;
  ask: MoveAsk;
  aspect: number;
  at: number;
  width: number;
  height: number;
};

/** The move from above (or from the side, or from the front for a leaning stick), to scale. */
export function MovePlan(props: Props) {
  return MOVES[props.ask.kind].view === "front" ? <Lean {...props} /> : <Ground {...props} />;
}

function Ground({ move, ask, aspect, at, width, height }: Props) {
  const { inUnits } = useUnits();
  const { view } = MOVES[ask.kind];
  const points = move.stations.map((station) => across(view, station));
  const first = move.stations[0];
  const here = move.stations[at] ?? first;
  const low = Math.min(0, ...points.map((p) => p.y));
  const high = Math.max(ask.subject_m * 1.12, ...points.map((p) => p.y));
  const reach = Math.max(ask.subject_m * 0.3, ...points.map((p) => Math.abs(p.x))) * 1.15;
  const scale = Math.min((height - SKY - FOOT) / (high - low), width / 2 / reach);
  const px = (x: number) => width / 2 + x * scale;
  const py = (y: number) => height - FOOT - (y - low) * scale;
  const side = (z: number) => (-0.12 * z * 36) / (first?.focal_mm ?? 26);
  const foreground = view === "side" ? 0 : side(ask.foreground_m);
  if (!first || !here) return null;
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={`The move ${view === "side" ? "from the side" : "from above"}`}
      className="bg-paper"
    >
      <text className="text-small" x="10" y="18" fill="var(--stone)">
        {view === "side" ? "from the side, up to the right" : "from above"}
      </text>
      <g stroke="var(--ridge-2)" fill="none">
        <path d={`M0 ${SKY}H${width}`} strokeWidth="7" stroke="var(--ridge-1)" />
        <path d={`M${width / 2 - 16} ${SKY + 12}l8 -5 8 5 8 -5 8 5`} strokeWidth="1.2" />
      </g>
      <text className="text-small" x="10" y={SKY + 20} fill="var(--stone)">
        background {inUnits("distance_m", ask.background_m)}
      </text>
      <line
        x1={px(0)}
        x2={px(0)}
        y1={py(low)}
        y2={SKY + 16}
        stroke="var(--line)"
        strokeDasharray="2 4"
      />
      <clipPath id="ground">
        <rect y={SKY + 4} width={width} height={height} />
      </clipPath>
      <g clipPath="url(#ground)">
        <Wedge station={first} {...{ view, aspect, px, py }} dashed />
        <Wedge station={here} {...{ view, aspect, px, py }} />
      </g>
      <polyline
        points={points.map((p) => `${px(p.x)},${py(p.y)}`).join(" ")}
        fill="none"
        stroke="var(--ridge-5)"
        strokeWidth="2.5"
        strokeLinecap="round"
      />
      <rect
        x={px(foreground) - 5}
        y={py(ask.foreground_m) - 5}
        width="10"
        height="10"
        fill="var(--ridge-4)"
      />
      <text
        className="text-small"
        x={px(foreground) - 10}
        y={py(ask.foreground_m) + 4}
        textAnchor="end"
        fill="var(--stone)"
      >
        {inUnits("distance_m", ask.foreground_m)}
      </text>
      <circle cx={px(0)} cy={py(ask.subject_m)} r="9" fill="var(--ridge-3)" stroke="var(--ink)" />
      <text
        className="text-small"
        x={px(0) + 14}
        y={py(ask.subject_m) + 4}
        fontWeight="600"
        fill="var(--ink)"
      >
        subject {inUnits("distance_m", ask.subject_m)}
      </text>
      <Camera
        x={px(points[0]?.x ?? 0)}
        y={py(points[0]?.y ?? 0)}
        turn={heading(view, first)}
        hollow
      />
      <Camera
        x={px(across(view, here).x)}
        y={py(across(view, here).y)}
        turn={heading(view, here)}
      />
    </svg>
  );
}

type WedgeProps = {
  station: Move["stations"][number];
  view: "plan" | "side" | "front";
  aspect: number;
  px: (x: number) => number;
  py: (y: number) => number;
  dashed?: boolean;
};

function Wedge({ station, view, aspect, px, py, dashed = false }: WedgeProps) {
  const at = across(view, station);
  const [x, y] = [px(at.x), py(at.y)];
  const middle = heading(view, station);
  const half = halfView(view, station.focal_mm, aspect);
  const end = (angle: number) =>
    `${(x + 3.2 * WEDGE_PX * Math.sin(angle)).toFixed(1)} ${(y - 3.2 * WEDGE_PX * Math.cos(angle)).toFixed(1)}`;
  return (
    <path
      d={`M${end(middle - half)}L${x} ${y}L${end(middle + half)}`}
      fill={dashed ? "none" : "var(--ridge-1)"}
      fillOpacity="0.45"
      stroke="var(--ridge-3)"
      strokeDasharray={dashed ? "4 4" : undefined}
    />
  );
}

type CameraProps = { x: number; y: number; turn: number; hollow?: boolean };

function Camera({ x, y, turn, hollow = false }: CameraProps) {
  return (
    <g
      transform={`translate(${x} ${y}) rotate(${(turn * 180) / Math.PI})`}
      fill={hollow ? "var(--paper)" : "var(--lamp)"}
      stroke="var(--ink)"
    >
      <rect x="-9" y="-3" width="18" height="12" />
      <rect x="-4.5" y="-10" width="9" height="7" />
    </g>
  );
}

/** A stick on the ground, upright and leaned, seen from behind the camera. */
function Lean({ move, ask, at, width, height }: Props) {
  const { inUnits } = useUnits();
  const scale = (height - SKY - FOOT) / (ask.pole_m * 1.06);
  const foot = { x: width / 2, y: height - FOOT };
  const head = (k: number) => {
    const station = move.stations[k];
    return {
      x: foot.x + (station?.x_m ?? 0) * scale,
      y: foot.y - (ask.pole_m + (station?.y_m ?? 0)) * scale,
      roll: station?.roll_deg ?? 0,
    };
  };
  const here = head(at);
  const points = move.stations.map((_, k) => head(k));
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label="The stick from behind"
      className="bg-paper"
    >
      <text className="text-small" x="10" y="18" fill="var(--stone)">
        from behind
      </text>
      <line y1={foot.y} y2={foot.y} x2={width} stroke="var(--ridge-2)" strokeWidth="3" />
      <line
        x1={foot.x}
        y1={foot.y}
        x2={foot.x}
        y2={head(0).y}
        stroke="var(--ridge-2)"
        strokeWidth="4"
        strokeDasharray="5 5"
      />
      <line
        x1={foot.x}
        y1={foot.y}
        x2={here.x}
        y2={here.y}
        stroke="var(--ridge-5)"
        strokeWidth="5"
      />
      <polyline
        points={points.map((p) => `${p.x},${p.y}`).join(" ")}
        fill="none"
        stroke="var(--ridge-4)"
        strokeWidth="1.5"
      />
      <g transform={`translate(${here.x} ${here.y}) rotate(${here.roll})`} stroke="var(--ink)">
        <rect x="-20" y="-24" width="40" height="24" fill="var(--lamp)" />
        <line x1="-70" x2="70" y1="-12" y2="-12" stroke="var(--ridge-3)" strokeDasharray="3 4" />
      </g>
      <text
        className="text-small"
        x={width - 8}
        y={foot.y + 20}
        textAnchor="end"
        fill="var(--stone)"
      >
        stick {inUnits("distance_m", ask.pole_m)}
      </text>
    </svg>
  );
}
