import type { Picture } from "./types";
import { ladderPath } from "../../../charts/ladder";
import * as format from "../../../formats";
import { Facts } from "../../../ui/Facts";
import { useWidth } from "../../../ui/useWidth";
import { useUnits } from "../../../ui/useUnits";
import { NoDrawing, PanelFrame } from "./PanelFrame";
import type { PanelProps } from "./panel";

const WORDS = {
  sensor: "Sensor",
  mode: "Read in this mode",
  stabiliser: "Recorded",
  polish: "After the polish that the brief allows",
  delivered: "Delivered, pixel for pixel",
} as const;
const LINES = {
  sensor: { stroke: "var(--stone)", strokeWidth: 1, strokeDasharray: "2 3" },
  mode: { stroke: "var(--ridge-4)", strokeWidth: 1.2, strokeDasharray: "7 4" },
  stabiliser: { stroke: "var(--ridge-5)", strokeWidth: 2 },
  polish: { stroke: "var(--lichen-deep)", strokeWidth: 1.8, strokeDasharray: "1 3" },
  delivered: { stroke: "var(--ink)", strokeWidth: 2.6 },
} as const;

const MOST_PX = 410;

/** What the set-up sees, and the crop that is left down to the delivered picture. */
export function PicturePanel({ answer }: PanelProps) {
  const { inUnits } = useUnits();
  const { picture } = answer;
  if (!picture) {
    return (
      <PanelFrame words="Picture" drawing={<NoDrawing words="The picture cannot be drawn." />}>
        {null}
      </PanelFrame>
    );
  }
  return (
    <PanelFrame words="Picture" drawing={<NestedFrames picture={picture} />}>
      <ul className="space-y-1.5 text-note">
        {picture.frames.map((frame) => (
          <li key={frame.name} className="grid grid-cols-[30px_1fr_auto] items-center gap-2">
            <svg width="30" height="8" aria-hidden="true">
              <line x1="0" x2="30" y1="4" y2="4" {...LINES[frame.name]} />
            </svg>
            <span>{WORDS[frame.name]}</span>
            <span className="text-right text-stone">
              {frame.width_px === null
                ? inUnits("share", frame.width)
                : `${frame.width_px}×${frame.height_px}`}
            </span>
          </li>
        ))}
      </ul>
      <Fan picture={picture} />
      <Facts
        facts={[
          { words: "Equivalent focal length", value: inUnits("optics_mm", picture.focal_eq_mm) },
          { words: "Taken by mode and stabilisers", value: inUnits("percent", picture.crop_pct) },
          ...(picture.budget_pct < 0
            ? [
                {
                  words: "The delivery is larger than the recording",
                  value: `enlarged ${format.times(picture.enlarged)}`,
                  warns: true,
                },
              ]
            : [
                {
                  words: "Crop that is left in all",
                  value: inUnits("percent", picture.budget_pct),
                },
                {
                  words: "of it for polish, by the brief",
                  value: inUnits("percent", picture.polish_pct),
                },
                { words: "then for reframing", value: inUnits("percent", picture.reframe_pct) },
              ]),
        ]}
      />
    </PanelFrame>
  );
}

/** The frames to scale, one inside the other, over a scene. */
export function NestedFrames({ picture }: { picture: Picture }) {
  const [box, width] = useWidth<HTMLDivElement>();
  const sensor = picture.frames[0];
  const tallest = Math.max(...picture.frames.map((frame) => frame.height));
  const scale = Math.max(0, Math.min(width - 4, MOST_PX / tallest));
  const tall = scale * tallest;
  const recorded = picture.frames.find((frame) => frame.name === "stabiliser");
  return (
    <div ref={box} className="w-full">
      {width > 0 && sensor && recorded && (
        <svg
          width={width}
          height={tall + 4}
          viewBox={`${-width / 2} ${-tall / 2 - 2} ${width} ${tall + 4}`}
          role="img"
          aria-label={`Equivalent ${format.millimetres(Math.round(picture.focal_eq_mm))}: of the sensor's width ${format.share(recorded.width)} are recorded.`}
        >
          <g opacity="0.35">
            <Scene width={scale * sensor.width} height={scale * sensor.height} />
          </g>
          <clipPath id="recorded">
            <Rect frame={recorded} scale={scale} />
          </clipPath>
          <g clipPath="url(#recorded)">
            <Scene width={scale * sensor.width} height={scale * sensor.height} />
          </g>
          {picture.frames.map((frame) => (
            <Rect key={frame.name} frame={frame} scale={scale} line={LINES[frame.name]} />
          ))}
        </svg>
      )}
    </div>
  );
}

type RectProps = {
  frame: Picture["frames"][number];
  scale: number;
  line?: (typeof LINES)[keyof typeof LINES];
};

function Rect({ frame, scale, line }: RectProps) {
  const [w, h] = [frame.width * scale, frame.height * scale];
  return (
    <rect x={-w / 2} y={-h / 2} width={w} height={h} fill="none" {...line} clipRule="nonzero" />
  );
}

function Scene({ width, height }: { width: number; height: number }) {
  const [x, y] = [-width / 2, -height / 2];
  const foot = height * 0.42;
  return (
    <g transform={`translate(${x} ${y})`}>
      <rect width={width} height={height} fill="var(--ridge-1)" />
      <g transform={`translate(0 ${height - foot - height * 0.22})`}>
        <path d={ladderPath(width, height * 0.3, 1.2)} fill="var(--ridge-2)" />
        <path d={ladderPath(width, height * 0.3)} fill="var(--ridge-3)" />
      </g>
      <rect y={height - foot} width={width} height={foot} fill="var(--ridge-3)" />
      <g transform={`translate(${width / 2} ${height * 0.62}) scale(${height / 400})`}>
        <path d="M-42 60L-27 -110H27L42 60Z" fill="var(--paper)" />
        <path d="M-30 -108L-20 -135 0 -146 20 -135 30 -108Z" fill="var(--ridge-5)" />
        <rect x="-11" y="18" width="22" height="42" fill="var(--ridge-4)" />
        <g stroke="var(--ridge-5)" strokeWidth="6" transform="translate(0 -118) rotate(38)">
          <path d="M-95 0H95M0 -95V95" />
        </g>
      </g>
    </g>
  );
}

/** The angle of view from above. */
function Fan({ picture }: { picture: Picture }) {
  const { inUnits } = useUnits();
  const half = (picture.long_deg * Math.PI) / 360;
  const reach = 92;
  const [x, y] = [reach * Math.sin(half), -reach * Math.cos(half)];
  return (
    <div className="flex items-center gap-4">
      <svg width="190" height="104" viewBox="-95 -98 190 104" aria-hidden="true">
        <path
          d={`M0 0L${-x} ${y}A${reach} ${reach} 0 0 1 ${x} ${y}Z`}
          fill="var(--ridge-1)"
          stroke="var(--ridge-4)"
        />
        <circle r="4" fill="var(--ink)" />
      </svg>
      <Facts
        facts={[
          { words: "across", value: inUnits("degrees", picture.long_deg) },
          { words: "upright", value: inUnits("degrees", picture.short_deg) },
          { words: "corner to corner", value: inUnits("degrees", picture.diagonal_deg) },
        ]}
      />
    </div>
  );
}
