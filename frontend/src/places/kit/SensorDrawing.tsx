import type { Camera } from "../../api/kit";
import * as format from "../../formats";

const FULL = { long: 36, short: 24 };

/** The sensor to scale inside a 36 by 24 mm one, with the part that each mode reads. */
export function SensorDrawing({ camera }: { camera: Camera }) {
  const long = Math.max(FULL.long, camera.sensor_long_mm);
  const short = Math.max(FULL.short, camera.sensor_short_mm);
  const [wide, tall] = [camera.sensor_long_mm, camera.sensor_short_mm];
  return (
    <svg
      viewBox={`${-long / 2 - 1} ${-short / 2 - 1} ${long + 2} ${short + 5}`}
      className="w-full max-w-64"
      role="img"
      aria-label={`The sensor beside a full 36 by 24 mm one`}
    >
      <rect
        x={-18}
        y={-12}
        width="36"
        height="24"
        fill="none"
        stroke="var(--ridge-2)"
        strokeWidth="0.3"
        strokeDasharray="1 1"
      />
      <rect
        x={-wide / 2}
        y={-tall / 2}
        width={Math.max(wide, 0)}
        height={Math.max(tall, 0)}
        fill="var(--ridge-1)"
        stroke="var(--ridge-4)"
        strokeWidth="0.3"
      />
      {camera.modes.map((mode, index) => {
        const across = wide * (1 - mode.crop);
        const up = (across * mode.height_px) / mode.width_px;
        return (
          <rect
            key={index}
            x={-across / 2}
            y={-up / 2}
            width={Math.max(across, 0)}
            height={Math.max(up, 0)}
            fill="var(--ridge-3)"
            fillOpacity="0.25"
            stroke="var(--ridge-5)"
            strokeWidth="0.2"
          />
        );
      })}
      <text x={-18} y={short / 2 + 3} fontSize="1.9" fill="var(--stone)">
        dashed: 36 × 24 mm · this one: {format.millimetres(wide)} wide
      </text>
    </svg>
  );
}
