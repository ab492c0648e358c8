import * as format from "../../../formats";
import { useUnits } from "../../../ui/useUnits";
import { useWidth } from "../../../ui/useWidth";
import type { Timing } from "./types";

const BAR = 46;
const GAP = 64;
const TOP = 22;

/** What is held in front of the camera, and how it stretches on screen. */
export function TimeStrip({ time, rateHz }: { time: Timing; rateHz: number }) {
  const [box, width] = useWidth<HTMLDivElement>();
  const { inUnits } = useUnits();
  const scale = Math.max(width - 2, 0) / Math.max(time.on_screen_s, time.hold_s, 0.01);
  const [held, shown] = [time.hold_s * scale, time.on_screen_s * scale];
  const frames = Math.min(Math.round(time.hold_s * rateHz), 160);
  const second = TOP + BAR + GAP;
  return (
    <div ref={box}>
      {width > 0 && (
        <svg
          width={width}
          height={second + BAR + 24}
          role="img"
          aria-label={`Hold for ${inUnits("seconds", time.hold_s)}; it plays ${inUnits("seconds", time.on_screen_s)}.`}
        >
          <text className="text-small" y="13" fill="var(--stone)">
            recorded at {format.rate(rateHz)}: hold for {inUnits("seconds", time.hold_s)}
          </text>
          <path
            d={`M0 ${TOP + BAR}H${held}L${shown} ${second}H0Z`}
            fill="var(--ridge-1)"
            fillOpacity="0.6"
          />
          <rect y={TOP} width={Math.max(held, 2)} height={BAR} fill="var(--ridge-4)" />
          {Array.from({ length: Math.max(frames - 1, 0) }, (_, k) => (
            <line
              key={k}
              x1={(held * (k + 1)) / frames}
              x2={(held * (k + 1)) / frames}
              y1={TOP + 7}
              y2={TOP + BAR - 7}
              stroke="var(--ridge-2)"
              strokeWidth={frames > 90 ? 0.6 : 1}
            />
          ))}
          <rect y={second} width={Math.max(shown, 2)} height={BAR} fill="var(--ridge-5)" />
          {Array.from({ length: Math.max(frames - 1, 0) }, (_, k) => (
            <line
              key={k}
              x1={(shown * (k + 1)) / frames}
              x2={(shown * (k + 1)) / frames}
              y1={second + 7}
              y2={second + BAR - 7}
              stroke="var(--ridge-3)"
              strokeWidth={frames > 90 ? 0.6 : 1}
            />
          ))}
          <text className="text-small" y={second + BAR + 17} fill="var(--stone)">
            on screen: {inUnits("seconds", time.on_screen_s)} at {format.share(time.playback)} of
            full speed
          </text>
        </svg>
      )}
    </div>
  );
}
