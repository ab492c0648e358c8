import { type ReactNode } from "react";
import { useDrag } from "../../../ui/useDrag";
import type { Kit, Place, SetupAsk } from "../../../api/kit";
import { useUnits } from "../../../ui/useUnits";
import { useWidth } from "../../../ui/useWidth";
import { boundsOf, carriedOf, dragged, placedAt, type RigAsk } from "./rig";
import type { Balance, RigPart } from "./types";

const HEIGHT = 400;
const PAD = 46;

type Props = {
  parts: readonly RigPart[];
  balance: Balance | null;
  ask: RigAsk;
  setup: SetupAsk;
  kit: Kit;
  onChange: (ask: RigAsk) => void;
};

/** The rig from its right side, nose to the right; what is not the camera can be dragged. */
export function RigDrawing({ parts, balance, ask, setup, kit, onChange }: Props) {
  const [box, width] = useWidth<HTMLDivElement>();
  const { inUnits } = useUnits();
  const bounds = boundsOf(parts, ask, balance);
  const scale = Math.min(
    (width - 2 * PAD) / (bounds.right - bounds.left),
    (HEIGHT - 2 * PAD) / (bounds.high - bounds.low),
    2.4,
  );
  const px = (z: number) => width / 2 + (z - (bounds.left + bounds.right) / 2) * scale;
  const py = (y: number) => HEIGHT / 2 - (y - (bounds.low + bounds.high) / 2) * scale;
  const carried = carriedOf(setup, kit);
  const bareCount = parts.length - carried.length;
  const hang = balance?.hang;
  const drawn = (ghost: boolean) =>
    parts.map((part, index) => (
      <PartBox key={index} part={part} ghost={ghost} px={px} py={py} scale={scale} />
    ));
  const drag = (place: Place, put: (place: Place) => void) => ({
    x: px(place.z_mm),
    y: py(place.y_mm),
    onMove: (x: number, y: number) =>
      put(
        dragged(
          place,
          (x - width / 2) / scale + (bounds.left + bounds.right) / 2,
          (HEIGHT / 2 - y) / scale + (bounds.low + bounds.high) / 2,
        ),
      ),
  });
  return (
    <div ref={box}>
      {width > 0 && (
        <svg
          width={width}
          height={HEIGHT}
          className="bg-paper"
          role="img"
          aria-label={spoken(balance, inUnits)}
        >
          <text className="text-small" x="10" y="18" fill="var(--stone)">
            from its right side, nose to the right
          </text>
          {hang && ask.handle && Math.abs(hang.forward_deg) > 0.5 && (
            <g
              transform={`rotate(${hang.forward_deg} ${px(ask.handle.z_mm)} ${py(ask.handle.y_mm)})`}
              opacity="0.9"
            >
              {drawn(true)}
            </g>
          )}
          {drawn(false)}
          {ask.handle && (
            <line
              x1={px(ask.handle.z_mm)}
              x2={px(ask.handle.z_mm)}
              y1={py(ask.handle.y_mm)}
              y2={HEIGHT - 14}
              stroke="var(--ink)"
              strokeDasharray="2 4"
            />
          )}
          {balance && <Centre x={px(balance.centre.z_mm)} y={py(balance.centre.y_mm)} />}
          {carried.map((item, index) => {
            const part = parts[bareCount + index];
            if (!part) return null;
            const put = (place: Place) => onChange(placedAt(ask, item.id, place));
            return (
              <Grip key={item.id} {...drag(part.place, put)}>
                <circle r="7" fill="var(--paper)" stroke="var(--ridge-5)" strokeWidth="2" />
              </Grip>
            );
          })}
          <Grip {...drag(ask.weight_at, (weight_at) => onChange({ ...ask, weight_at }))}>
            <rect
              x="-14"
              y="-12"
              width="28"
              height="24"
              fill="none"
              stroke="var(--stone)"
              strokeDasharray="3 3"
            />
            <text className="text-fine" y="26" textAnchor="middle" fill="var(--stone)">
              counterweight
            </text>
          </Grip>
          {ask.handle && (
            <Grip {...drag(ask.handle, (handle) => onChange({ ...ask, handle }))}>
              <path
                d="M-20 0Q-20 -14 0 -14T20 0"
                fill="none"
                stroke="var(--ink)"
                strokeWidth="5"
                strokeLinecap="round"
              />
              <circle r="4" fill="var(--ink)" />
              <text className="text-fine" x="28" y="-2" fill="var(--ink)">
                hangs here
              </text>
            </Grip>
          )}
        </svg>
      )}
      <p className="mt-1 text-small text-stone">
        Drag a ring, the counterweight or the handle.{" "}
        {hang && "Pale: how it hangs from the handle."}
      </p>
    </div>
  );
}

type BoxProps = {
  part: RigPart;
  ghost: boolean;
  px: (z: number) => number;
  py: (y: number) => number;
  scale: number;
};

function PartBox({ part, ghost, px, py, scale }: BoxProps) {
  const { place, size } = part;
  const [w, h] = [size.depth_mm * scale, size.height_mm * scale];
  const [x, y] = [px(place.z_mm) - w / 2, py(place.y_mm) - h / 2];
  const fill = part.bare ? (part.name === "Lens" ? "var(--ridge-3)" : "var(--ridge-4)") : "var(--ridge-2)"; // prettier-ignore
  if (ghost) {
    return <rect x={x} y={y} width={w} height={h} fill="var(--ridge-1)" stroke="var(--ridge-2)" />;
  }
  return (
    <g>
      <rect
        x={x}
        y={y}
        width={w}
        height={h}
        fill={fill}
        fillOpacity={part.bare ? 1 : 0.8}
        stroke="var(--ridge-5)"
      />
      {w > 44 && h > 16 && part.bare && (
        <text
          className="text-fine"
          x={x + 5}
          y={y + 13}
          fill={part.bare && part.name !== "Lens" ? "var(--paper)" : "var(--ink)"}
        >
          {part.name.length * 6 < w ? part.name : ""}
        </text>
      )}
    </g>
  );
}

function Centre({ x, y }: { x: number; y: number }) {
  return (
    <g transform={`translate(${x} ${y})`}>
      <circle r="8" fill="var(--lamp)" stroke="var(--ink)" />
      <path d="M0 0V-8A8 8 0 0 1 8 0ZM0 0V8A8 8 0 0 1 -8 0Z" fill="var(--ink)" />
    </g>
  );
}

type GripProps = {
  x: number;
  y: number;
  onMove: (x: number, y: number) => void;
  children: ReactNode;
};

/** A thing that follows the pointer; the fields beside the drawing do the same by keyboard. */
function Grip({ x, y, onMove, children }: GripProps) {
  const drag = useDrag({
    onStart: (at) => ({ dx: at.x - x, dy: at.y - y }),
    onMove: (at, held) => onMove(at.x - held.dx, at.y - held.dy),
  });
  return (
    <g
      transform={`translate(${x} ${y})`}
      className="cursor-grab touch-none active:cursor-grabbing"
      {...drag}
    >
      <circle r="16" fill="transparent" />
      {children}
    </g>
  );
}

function spoken(balance: Balance | null, inUnits: ReturnType<typeof useUnits>["inUnits"]): string {
  if (!balance) return "The rig";
  const hang = balance.hang
    ? `, hanging ${inUnits("degrees", Math.abs(balance.hang.forward_deg))} ${balance.hang.forward_deg > 0 ? "nose down" : "nose up"}`
    : "";
  return `The rig of ${inUnits("heavy_g", balance.mass_g)}${hang}`;
}
