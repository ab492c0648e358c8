import { halfView } from "./bench/moves";

const HEIGHT = 44;
const FARTHEST = 58;

/** How wide a lens sees, from above: the camera at the left, what it sees to its right. */
export function ViewWedge({ focalMm }: { focalMm: number }) {
  const half = halfView("plan", focalMm, 1);
  const reach = Math.min(FARTHEST, (HEIGHT / 2 - 1) / Math.sin(half));
  const [x, y] = [reach * Math.cos(half), reach * Math.sin(half)];
  return (
    <svg
      viewBox={`-8 ${-HEIGHT / 2} ${FARTHEST + 8} ${HEIGHT}`}
      aria-hidden="true"
      className="hidden h-9 w-14 flex-none sm:block"
    >
      <path d={`M0 0L${x} ${-y}A${reach} ${reach} 0 0 1 ${x} ${y}Z`} fill="var(--ridge-2)" />
      <path d={`M${x} ${-y}L0 0L${x} ${y}`} fill="none" stroke="var(--ridge-4)" />
      <rect x="-8" y="-4" width="8" height="8" fill="var(--ink)" />
    </svg>
  );
}
