import type { ScaleLinear } from "d3-scale";
import { VariationBody } from "../../body/VariationBody";
import { TicksAcross } from "../../charts/Ticks";
import * as format from "../../formats";
import { useWidth } from "../../ui/useWidth";
import { gustScale, linesOf, type Told, type Way } from "./waysLayout";

const LINE_PX = 20;
const FOOT_PX = 18;
const R_PX = 8.5;
const COLUMNS = "grid grid-cols-[44px_112px_minmax(0,1fr)_44px] items-center gap-x-2";

type Props = { drill: string; ways: readonly Way[]; target: number };

/** What a session's takes of one drill read, one way beneath another; each take bears its number. */
export function WaysPicture({ drill, ways, target }: Props) {
  const [box, width] = useWidth<HTMLDivElement>();
  const x = gustScale(ways, target, width);
  return (
    <div>
      <ul>
        {ways.map((way, index) => (
          <li key={way.key} className={`${COLUMNS} border-t border-line`}>
            <VariationBody drill={drill} variation={way.key} className="h-12 w-11 py-0.5" />
            <p className="text-note leading-tight font-semibold">{way.name}</p>
            <div ref={index === 0 ? box : undefined} className="self-stretch">
              {width > 0 && <Row way={way} x={x} width={width} target={target} />}
            </div>
            <p className="figure-narrow text-right text-lead leading-none">
              <span className="sr-only">Gust on average </span>
              {format.gust(way.mean)}
            </p>
          </li>
        ))}
      </ul>
      <div className={COLUMNS}>
        <svg
          width={Math.max(width, 1)}
          height={FOOT_PX}
          aria-hidden="true"
          className="col-start-3 overflow-visible"
        >
          <TicksAcross ticks={x.ticks(Math.max(2, Math.floor(width / 60)))} x={x} y={13} />
        </svg>
        <p className="text-right text-fine text-stone">average</p>
      </div>
    </div>
  );
}

type RowProps = { way: Way; x: ScaleLinear<number, number>; width: number; target: number };

function Row({ way, x, width, target }: RowProps) {
  const lines = linesOf(way.takes.map((take) => x(take.gust)));
  const height = Math.max(48, LINE_PX * (Math.max(...lines) + 1) + 8);
  const over = Math.max(0, Math.min(x(target), width));
  const told = way.takes.map(({ position, gust, whyOut }) =>
    [`take ${position + 1} ${format.gust(gust)}`, whyOut].filter(Boolean).join(" "),
  );
  return (
    <svg width={width} height={height} role="img" aria-label={`${way.name}: ${told.join(", ")}`}>
      <rect x={over} width={width - over} height={height} fill="url(#hatch)" opacity="0.3" />
      <line x1={over} x2={over} y2={height} stroke="var(--ink)" strokeDasharray="1.5 2" />
      {way.takes.map((take, index) => {
        const up = (lines[index] ?? 0) - Math.max(...lines) / 2;
        return (
          <Dot key={take.position} take={take} x={x(take.gust)} y={height / 2 + LINE_PX * up} />
        );
      })}
    </svg>
  );
}

const FELT = {
  good: ["var(--ridge-5)", "var(--paper)"],
  bad: ["var(--paper)", "var(--ink)"],
  none: ["var(--ridge-2)", "var(--ink)"],
};

/** A take; crossed out where it counts for nothing. */
function Dot({ take, x, y }: { take: Told; x: number; y: number }) {
  const [fill, ink] = FELT[take.felt ?? "none"];
  return (
    <>
      <circle cx={x} cy={y} r={R_PX} fill={fill} stroke="var(--ridge-5)" strokeWidth="1.2" />
      <text x={x} y={y + 3.6} textAnchor="middle" className="text-fine" fill={ink}>
        {take.position + 1}
      </text>
      {take.whyOut && (
        <path
          d={`M${x - R_PX} ${y - R_PX}l${2 * R_PX} ${2 * R_PX}`}
          stroke="var(--ember)"
          strokeWidth="2"
        >
          <title>{take.whyOut}</title>
        </path>
      )}
    </>
  );
}
