import type { PathColumns } from "../../../api/client";
import { nearest } from "../../../charts/ridge";
import * as format from "../../../formats";
import { usePlayhead, useTime } from "./playhead";

const VIEW = { width: 160, height: 90 };

/** In place of a picture: where the middle of the frame went, and where it is now. */
export function NoPicture({ path, seconds }: { path: PathColumns | undefined; seconds: number }) {
  const t = useTime();
  const playhead = usePlayhead();
  const points = (path?.t_s ?? []).flatMap((_, i) => {
    const [pan, tilt] = [path?.pan_pct[i], path?.tilt_pct[i]];
    return pan == null || tilt == null ? [] : [[pan, -tilt] as const];
  });
  const [xs, ys] = [points.map((point) => point[0]), points.map((point) => point[1])];
  const [left, right] = [Math.min(...xs), Math.max(...xs)];
  const [top, low] = [Math.min(...ys), Math.max(...ys)];
  const scale = Math.min(
    (0.8 * VIEW.width) / Math.max(right - left, 0.5),
    (0.8 * VIEW.height) / Math.max(low - top, 0.5),
  );
  const at = ([x, y]: readonly [number, number]) =>
    [
      VIEW.width / 2 + (x - (left + right) / 2) * scale,
      VIEW.height / 2 + (y - (top + low) / 2) * scale,
    ] as const;
  const now = points[nearest(path?.t_s ?? [], t)];
  const here = now && at(now);
  return (
    <div>
      <svg
        viewBox={`0 0 ${VIEW.width} ${VIEW.height}`}
        role="img"
        aria-label="The way of the camera, without a picture"
        className="rounded w-full bg-ridge-5"
      >
        <polyline
          points={points.map((point) => at(point).join(",")).join(" ")}
          fill="none"
          stroke="#fff"
          strokeOpacity="0.7"
          strokeWidth="0.4"
        />
        {here && <circle cx={here[0]} cy={here[1]} r="1.4" fill="var(--lamp)" />}
      </svg>
      <p className="flex flex-wrap gap-x-4 pt-1.5 text-small text-stone">
        <b className="font-semibold text-ink">{format.exactSeconds(t)}</b>
        <span>No picture: measured from a motion log.</span>
        <label className="ml-auto">
          <span className="sr-only">Place in the take</span>
          <input
            type="range"
            min={0}
            max={seconds}
            step={0.02}
            value={t}
            onChange={(event) => playhead.seek(Number(event.target.value))}
            className="accent-[var(--lamp)]"
          />
        </label>
      </p>
    </div>
  );
}
