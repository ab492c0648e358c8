import { usePoints, type SeenPoints } from "../../../api/points";
import type { ClipFacts } from "../../../api/client";
import { nearest } from "../../../charts/ridge";
import { useTime } from "./playhead";

/** Over the picture: full dots are what the camera's path is worked out from, rings what moves by
 * itself. */
export function PointsLayer({ id, clip }: { id: number; clip: ClipFacts }) {
  const t = useTime();
  const found = usePoints(id, t).data;
  if (!found) return null;
  const long = Math.max(clip.width, clip.height);
  return (
    <svg
      viewBox={`0 0 ${clip.width} ${clip.height}`}
      className="pointer-events-none absolute inset-0 h-full w-full"
      aria-hidden="true"
    >
      <Dots clip={clip} seen={at(found.others, t)} r={long / 170} ring />
      <Dots clip={clip} seen={at(found.believed, t)} r={long / 200} />
    </svg>
  );
}

/** Under the picture: what the dots and rings are. */
export function PointsKey({ id, onName }: { id: number; onName: () => void }) {
  const found = usePoints(id, 0).data;
  if (!found) return null;
  return (
    <p className="flex flex-wrap gap-x-3 pt-1.5 text-note">
      {found.believed.length === 0 ? (
        <span>No points are kept of this take: it was measured before they were.</span>
      ) : (
        <span>● followed as the camera</span>
      )}
      {found.others.length > 0 && <span>○ moves by itself</span>}
      <button type="button" className="underline hover:text-ink" onClick={onName}>
        Show where the background is
      </button>
    </p>
  );
}

function at(seen: SeenPoints[], t: number): SeenPoints | undefined {
  return seen.length === 0
    ? undefined
    : seen[
        nearest(
          seen.map((one) => one.t_s),
          t,
        )
      ];
}

type DotsProps = { clip: ClipFacts; seen: SeenPoints | undefined; r: number; ring?: boolean };

function Dots({ clip, seen, r, ring = false }: DotsProps) {
  if (!seen) return null;
  const long = Math.max(clip.width, clip.height);
  const dots = [];
  for (let k = 0; k + 1 < seen.places.length; k += 2) {
    const cx = clip.width / 2 + ((seen.places[k] ?? 0) * long) / 1000;
    const cy = clip.height / 2 + ((seen.places[k + 1] ?? 0) * long) / 1000;
    dots.push(
      <circle
        key={k}
        cx={cx}
        cy={cy}
        r={r}
        fill={ring ? "none" : "var(--lamp)"}
        stroke={ring ? "#fff" : "var(--lamp-ink)"}
        strokeWidth={ring ? r / 2 : r / 3}
      />,
    );
  }
  return <g data-testid={ring ? "other-points" : "believed-points"}>{dots}</g>;
}
