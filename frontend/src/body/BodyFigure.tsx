import type { FigureFrame } from "../api/figures";
import { Camera } from "./Camera";
import { edgedBy } from "./edged";
import {
  circle,
  closed,
  corners,
  hull,
  jointsOf,
  limb,
  nearness,
  seen,
  type Joints,
  type Place,
  type View,
} from "./project";

/** Of each limb's two ends, m. */
const THIGH = [0.082, 0.056] as const;
const SHANK = [0.056, 0.036] as const;
const FOOT = [0.036, 0.026] as const;
const UPPER_ARM = [0.054, 0.04] as const;
const FOREARM = [0.04, 0.03] as const;
const [HIP, SHOULDER, WAIST, CHEST, NECK] = [0.075, 0.058, 0.1, 0.115, 0.044];
const COLOURS = {
  r: "var(--ridge-5)",
  l: "var(--ridge-3)",
  trunk: "var(--ridge-4)",
  head: "var(--ridge-5)",
};
const GHOST = "var(--ridge-1)";
const PROP_COLOURS: Record<string, string> = {
  stick: "var(--ink)",
  leg: "var(--ink)",
  weight: "var(--stone)",
  band: "var(--lamp)",
};

type Props = {
  names: readonly string[];
  frame: FigureFrame;
  view: View;
  /** Everything in one pale colour: where it was before. */
  ghost?: boolean;
  /** Parts of the pose in which it differs from another: what they move is edged. */
  differs?: readonly string[];
};

/** A body from one side, in flat solids: the right limbs dark, the left ones pale. */
export function BodyFigure({ names, frame, view, ghost = false, differs = [] }: Props) {
  const joints = jointsOf(names, frame);
  const edged = edgedBy(differs);
  const at = (name: string) => joints[name] ?? ([0, 0, 0] as Place);
  const parts = [
    {
      near: nearness(at("chest"), view),
      key: "trunk",
      draw: <Trunk {...{ joints, view, ghost }} edged={edged.has("trunk")} />,
    },
    {
      near: nearness(at("head"), view) + 0.001,
      key: "head",
      draw: <Head {...{ joints, view, ghost }} edged={false} />,
    },
    ...(["r", "l"] as const).flatMap((side) => [
      {
        near: middle(at(`hip_${side}`), at(`knee_${side}`), view) + sideOf(side, view, 0.12),
        key: `leg-${side}`,
        draw: <Leg {...{ joints, view, side, ghost }} edged={edged.has("legs")} />,
      },
      {
        near: middle(at(`elbow_${side}`), at(`hand_${side}`), view) + sideOf(side, view, 0.2),
        key: `arm-${side}`,
        draw: <Arm {...{ joints, view, side, ghost }} edged={edged.has(`arm-${side}`)} />,
      },
    ]),
    {
      near: nearness(frame.camera as Place, view) + 0.02,
      key: "camera",
      draw: <Camera frame={frame} view={view} ghost={ghost ? GHOST : null} />,
    },
  ].sort((a, b) => a.near - b.near);
  return (
    <g>
      {!ghost && frame.props.map((prop, k) => <PropShape key={k} prop={prop} view={view} />)}
      {parts.map((part) => (
        <g key={part.key}>{part.draw}</g>
      ))}
      {!ghost && <Strap frame={frame} view={view} />}
      {!ghost &&
        frame.dots.map((dot, k) => {
          const [x, y] = seen(dot as Place, view);
          return (
            <circle
              key={k}
              cx={x}
              cy={y}
              r={edged.has("contacts") ? 0.042 : 0.03}
              fill="var(--lamp)"
              stroke="var(--paper)"
              strokeWidth="0.012"
            />
          );
        })}
    </g>
  );
}

const middle = (a: Place, b: Place, view: View) => (nearness(a, view) + nearness(b, view)) / 2;

/** From the side a limb of the near side is before the trunk, whatever it does. */
const sideOf = (side: "r" | "l", view: View, much: number) =>
  view === "side" ? (side === "r" ? much : -much) : 0;

type PartProps = { joints: Joints; view: View; ghost: boolean; edged: boolean };

const EDGE = {
  fill: "none",
  stroke: "var(--lamp)",
  strokeWidth: 0.05,
  strokeLinejoin: "round",
} as const;

function Bones(
  props: PartProps & {
    side: "r" | "l";
    names: string[];
    radii: readonly (readonly [number, number])[];
  },
) {
  const { joints, view, side, ghost, edged, names, radii } = props;
  const fill = ghost ? GHOST : COLOURS[side];
  const shapes = radii.flatMap(([from, to], k) => {
    const [a, b] = [joints[`${names[k]}_${side}`], joints[`${names[k + 1]}_${side}`]];
    return a && b ? [limb(seen(a, view), seen(b, view), from, to)] : [];
  });
  return (
    <>
      {edged && shapes.map((shape, k) => <path key={`e${k}`} d={shape} {...EDGE} />)}
      {shapes.map((shape, k) => (
        <path key={k} d={shape} fill={fill} />
      ))}
    </>
  );
}

const Leg = (props: PartProps & { side: "r" | "l" }) => (
  <Bones {...props} names={["hip", "knee", "ankle", "toe"]} radii={[THIGH, SHANK, FOOT]} />
);

const Arm = (props: PartProps & { side: "r" | "l" }) => (
  <Bones {...props} names={["shoulder", "elbow", "hand"]} radii={[UPPER_ARM, FOREARM]} />
);

function Trunk({ joints, view, ghost, edged }: PartProps) {
  const round = (name: string, r: number) => {
    const place = joints[name];
    return place ? circle(seen(place, view), r) : [];
  };
  const body = hull([
    ...round("hip_r", HIP),
    ...round("hip_l", HIP),
    ...round("pelvis", WAIST),
    ...round("shoulder_r", SHOULDER),
    ...round("shoulder_l", SHOULDER),
    ...round("chest", CHEST),
  ]);
  const fill = ghost ? GHOST : COLOURS.trunk;
  const [chest, head] = [joints["chest"], joints["head"]];
  return (
    <>
      {edged && <path d={closed(body)} {...EDGE} />}
      <path d={closed(body)} fill={fill} />
      {chest && head && view !== "above" && (
        <path d={limb(seen(chest, view), seen(head, view), NECK, NECK)} fill={fill} />
      )}
    </>
  );
}

function Head({ joints, view, ghost }: PartProps) {
  const head = joints["head"];
  if (!head) return null;
  const [x, y] = seen(head, view);
  return (
    <ellipse
      cx={x}
      cy={y}
      rx="0.09"
      ry={view === "above" ? 0.1 : 0.115}
      fill={ghost ? GHOST : COLOURS.head}
    />
  );
}

function Strap({ frame, view }: { frame: FigureFrame; view: View }) {
  if (frame.strap.length < 3) return null;
  const [a, b, c] = frame.strap.map((point) => seen(point as Place, view));
  if (!a || !b || !c) return null;
  const bend = [2 * b[0] - (a[0] + c[0]) / 2, 2 * b[1] - (a[1] + c[1]) / 2];
  return (
    <path
      d={`M${a[0]} ${a[1]}Q${bend[0]} ${bend[1]} ${c[0]} ${c[1]}`}
      fill="none"
      stroke="var(--lamp)"
      strokeWidth="0.022"
      strokeLinecap="round"
    />
  );
}

function PropShape({ prop, view }: { prop: FigureFrame["props"][number]; view: View }) {
  const [a, b] = prop.points as Place[];
  if (!a || !b) return null;
  const line = PROP_COLOURS[prop.kind];
  if (line) {
    const [[x1, y1], [x2, y2]] = [seen(a, view), seen(b, view)];
    const wide = prop.kind === "weight" ? 0.06 : prop.kind === "band" ? 0.016 : 0.028;
    return (
      <line
        x1={x1}
        y1={y1}
        x2={x2}
        y2={y2}
        stroke={line}
        strokeWidth={wide}
        strokeLinecap="round"
      />
    );
  }
  const half: Place = [(b[0] - a[0]) / 2, (b[1] - a[1]) / 2, (b[2] - a[2]) / 2];
  const at: Place = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2, (a[2] + b[2]) / 2];
  const shape = corners(at, half, 0, 0, 0, 0).map((corner) => seen(corner, view));
  return <path d={closed(hull(shape))} fill={prop.kind === "cloth" ? "var(--ridge-2)" : GHOST} />;
}
