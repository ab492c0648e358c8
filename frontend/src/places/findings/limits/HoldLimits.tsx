import { scaleLinear } from "d3-scale";
import type { HoldLine, Limits, Technique } from "../../../api/limits";
import * as format from "../../../formats";
import { useWidth } from "../../../ui/useWidth";
import { bound, crumbling, type X } from "./layout";

const HEIGHT = 64;

/** How long each way of standing holds: the share of takes that are still calm, crumbling away. */
export function HoldLimits({ limits }: { limits: Limits }) {
  const told = limits.techniques.filter(
    (one): one is Technique & { hold: HoldLine } => one.hold !== null && !one.hint,
  );
  if (told.length === 0) return null;
  const longest = Math.max(...told.map((one) => one.hold.held_s));
  return (
    <section aria-label="Longest hold" className="border-t border-line px-4 py-3 sm:px-8">
      <h2 className="label-wide">Longest hold</h2>
      <p className="mb-2 text-note text-stone">
        Takes that are still calm after so many seconds; thin lines hold nine times in ten.
      </p>
      <ul className="grid grid-cols-1 gap-x-8 gap-y-4 sm:grid-cols-2 xl:grid-cols-3">
        {told.map((one) => (
          <Ledge key={one.key} one={one} longest={longest} />
        ))}
      </ul>
    </section>
  );
}

function Ledge({ one, longest }: { one: Technique & { hold: HoldLine }; longest: number }) {
  const [box, width] = useWidth<HTMLLIElement>();
  const { hold } = one;
  const x: X = scaleLinear([0, longest], [0, Math.max(1, width - 4)]);
  const foot = HEIGHT - 2;
  return (
    <li ref={box}>
      <p className="leading-tight">
        <b className="font-semibold">{one.name}</b>{" "}
        <span className="text-small text-stone">
          {one.drill}, {format.takes(one.takes)}
        </span>
      </p>
      <p className="text-note">{words(hold)}</p>
      {width > 0 && (
        <svg width={width} height={HEIGHT + 16} aria-hidden="true">
          <path d={crumbling(hold, x, foot, HEIGHT - 8)} fill="var(--ridge-3)" />
          {[hold.low, hold.high].map((shares, k) => (
            <path
              key={k}
              d={bound(hold, shares, x, foot, HEIGHT - 8)}
              fill="none"
              stroke="var(--ridge-5)"
              strokeWidth="0.8"
            />
          ))}
          {hold.eighty !== null && (
            <line
              x1={x(hold.eighty)}
              x2={x(hold.eighty)}
              y1={0}
              y2={foot}
              stroke="var(--ink)"
              strokeWidth="2"
            />
          )}
          <line x1={0} x2={width} y1={foot} y2={foot} stroke="var(--ridge-2)" />
          {x.ticks(4).map((tick) => (
            <text
              key={tick}
              className="text-fine"
              x={x(tick)}
              y={HEIGHT + 12}
              textAnchor={tick === 0 ? "start" : "middle"}
              fill="var(--stone)"
            >
              {tick === 0 ? "0 s" : tick}
            </text>
          ))}
        </svg>
      )}
    </li>
  );
}

/** When it is over as soon as it can be told. */
const AT_ONCE_S = 0.6;

function words(hold: HoldLine): string {
  if (hold.half !== null && hold.half <= AT_ONCE_S) return "Over target from the start.";
  if (hold.eighty === null) {
    return `Four in five or more hold to the end; the longest was ${format.seconds(hold.held_s)}.`;
  }
  const half =
    hold.half === null
      ? "half of them outlast the longest"
      : `half outlast ${format.seconds(hold.half)}`;
  return `Four in five outlast ${format.seconds(hold.eighty)}; ${half}.`;
}
