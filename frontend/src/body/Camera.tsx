import type { FigureFrame } from "../api/figures";
import { closed, corners, hull, seen, type Place, type View } from "./project";

/** Half sides of the camera's body and of its lens, and how far ahead the lens lies, m. */
const BODY: Place = [0.07, 0.048, 0.035];
const LENS: Place = [0.036, 0.036, 0.05];
const LENS_AHEAD = 0.08;
const SEEN_M = 1.1;
const HALF_VIEW = Math.tan((27 * Math.PI) / 180);

type Props = { frame: FigureFrame; view: View; ghost: string | null };

/** The camera, with its lens where it looks; from above, with what it sees. */
export function Camera({ frame, view, ghost }: Props) {
  const { yaw_deg, tilt_deg, roll_deg } = frame;
  const camera = frame.camera as Place;
  const box = (half: Place, ahead: number) =>
    closed(
      hull(
        corners(camera, half, ahead, yaw_deg, tilt_deg, roll_deg).map((corner) =>
          seen(corner, view),
        ),
      ),
    );
  const fill = ghost ?? "var(--ink)";
  const facing = view === "front" && Math.abs(yaw_deg) < 50 && Math.abs(tilt_deg) < 50;
  const [x, y] = seen(lensOf(camera, yaw_deg, tilt_deg), view);
  return (
    <>
      {view === "above" && ghost === null && <path d={sight(camera, yaw_deg)} fill="var(--mist)" />}
      <path d={box(LENS, LENS_AHEAD)} fill={fill} />
      <path d={box(BODY, 0)} fill={fill} stroke={ghost ?? "var(--ink)"} strokeWidth="0.01" />
      {facing && ghost === null && (
        <>
          <circle cx={x} cy={y} r="0.042" fill="var(--ridge-3)" />
          <circle cx={x} cy={y} r="0.022" fill="var(--ink)" />
        </>
      )}
    </>
  );
}

function lensOf(camera: Place, yaw_deg: number, tilt_deg: number): Place {
  const [yaw, tilt] = [(yaw_deg * Math.PI) / 180, (tilt_deg * Math.PI) / 180];
  const out = LENS_AHEAD * Math.cos(tilt);
  return [
    camera[0] + out * Math.sin(yaw),
    camera[1] + LENS_AHEAD * Math.sin(tilt),
    camera[2] + out * Math.cos(yaw),
  ];
}

/** What it sees, from above. */
function sight(camera: Place, yaw_deg: number): string {
  const yaw = (yaw_deg * Math.PI) / 180;
  const corner = (way: number): Place => [
    camera[0] + SEEN_M * (Math.sin(yaw) + way * HALF_VIEW * Math.cos(yaw)),
    camera[1],
    camera[2] + SEEN_M * (Math.cos(yaw) - way * HALF_VIEW * Math.sin(yaw)),
  ];
  return closed([camera, corner(-1), corner(1)].map((place) => seen(place, "above")));
}
