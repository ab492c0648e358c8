import { useId } from "react";
import * as format from "../formats";
import { useWidth } from "../ui/useWidth";
import { LADDER_TOP, ladderPath } from "./ladder";

const HEIGHT = 130;
const FOOT = 22;

type Props = { target: number; feels: Record<string, number> };

/** How much shake a target allows, between a plain and alps; what is beyond is hatched. */
export function TargetLadder({ target, feels }: Props) {
  const id = useId();
  const [box, width] = useWidth<HTMLDivElement>();
  const at = (gust: number) => (width * gust) / LADDER_TOP;
  const x = at(target);
  return (
    <div ref={box} style={{ height: HEIGHT + FOOT }}>
      {width > 0 && (
        <svg
          width={width}
          height={HEIGHT + FOOT}
          role="img"
          aria-label={`Gust up to ${format.gust(target)} of 10 passes.`}
        >
          <clipPath id={`${id}o`}>
            <rect x={x} width={width - x} height={HEIGHT} />
          </clipPath>
          <rect width={x} height={HEIGHT} fill="var(--lichen-wash)" />
          <path d={ladderPath(width, HEIGHT, 1.6)} fill="var(--ridge-1)" />
          <path d={ladderPath(width, HEIGHT, 0.8)} fill="var(--ridge-2)" />
          <path d={ladderPath(width, HEIGHT)} fill="var(--ridge-4)" />
          <path d={ladderPath(width, HEIGHT)} fill="url(#hatch)" clipPath={`url(#${id}o)`} />
          <line x1={x} x2={x} y2={HEIGHT} stroke="var(--ink)" strokeWidth="1.5" />
          <text
            x={x + (target > 8 ? -6 : 6)}
            y="15"
            fontSize="13"
            fontWeight="650"
            fill="var(--ink)"
            textAnchor={target > 8 ? "end" : "start"}
          >
            target {format.gust(target)}
          </text>
          {Object.entries(feels).map(([feel, gust]) => (
            <g key={feel}>
              <line x1={at(gust)} x2={at(gust)} y1={HEIGHT} y2={HEIGHT + 4} stroke="var(--stone)" />
              <text
                className="text-small"
                x={at(gust)}
                y={HEIGHT + 17}
                textAnchor="middle"
                fill="var(--stone)"
              >
                {feel} {format.gust(gust)}
              </text>
            </g>
          ))}
        </svg>
      )}
    </div>
  );
}
