import { scaleLinear, scaleLog } from "d3-scale";
import { useEndurance, type Endurance, type EnduranceLine } from "../../../api/limits";
import { TicksAcross } from "../../../charts/Ticks";
import * as format from "../../../formats";
import { useWidth } from "../../../ui/useWidth";
import { restingWords, tiringWords } from "./enduranceWords";

const [HEIGHT, FOOT] = [56, 14];
const PLACES = [1, 4, 8, 12, 16];
const RESTS_S = [5, 10, 20, 40, 90, 180, 360, 720, 1800, 3600];

/** How many takes each technique bears in a session, and how long a rest it wants before each. */
export function EnduranceLimits({ briefId }: { briefId: number | null }) {
  const found = useEndurance(briefId).data;
  const told = found?.techniques.filter((one) => !one.hint && one.tiring !== null) ?? [];
  if (!found || told.length === 0) return null;
  return (
    <section aria-label="Takes and rest" className="border-t border-line px-4 py-3 sm:px-8">
      <h2 className="label-wide">Takes before tiring, and the rest between</h2>
      <p className="mb-1 text-note text-stone">
        Gust of the usual take, rising with the takes of a session and falling with the rest before
        it; the pale edge holds four in five, the line in ember is the target.
        {found.rests_alike &&
          " Your rests were about alike, so what a longer one is worth is not known: take one of three minutes now and then."}
      </p>
      <ul>
        {told.map((one) => (
          <Row key={one.key} one={one} found={found} />
        ))}
      </ul>
    </section>
  );
}

function Row({ one, found }: { one: EnduranceLine; found: Endurance }) {
  const { tiring, resting } = one;
  const values = [tiring, resting].flatMap((part) =>
    part === null
      ? []
      : "gust_first" in part
        ? [part.gust_first, part.gust_last + part.margin, part.gust_last]
        : [part.gust_long, part.gust_short + part.margin, part.gust_short],
  );
  const range = [Math.min(found.target, ...values), Math.max(found.target, ...values)] as const;
  return (
    <li className="grid grid-cols-1 items-center gap-x-6 gap-y-1 border-t border-line py-2 md:grid-cols-[200px_minmax(0,1fr)_minmax(0,1fr)]">
      <p className="leading-tight">
        <b className="font-semibold">{one.name}</b>{" "}
        <span className="text-small text-stone">
          {one.drill}, {format.takes(one.takes)}
        </span>
      </p>
      {tiring && (
        <div>
          <Slope
            from={tiring.gust_first}
            to={tiring.gust_last}
            margin={tiring.margin}
            target={found.target}
            range={range}
            ends={[1, found.last_place]}
            ticks={PLACES}
            mark={tiring.until}
          />
          <p className="text-small text-stone">{tiringWords(tiring, found.target)}</p>
        </div>
      )}
      {resting && found.shortest_s !== null && found.longest_s !== null && (
        <div>
          <Slope
            from={resting.gust_short}
            to={resting.gust_long}
            margin={resting.margin}
            target={found.target}
            range={range}
            ends={[found.shortest_s, found.longest_s]}
            ticks={RESTS_S}
            mark={resting.enough_s}
            doublings
          />
          <p className="text-small text-stone">{restingWords(resting, found.shortest_s)}</p>
        </div>
      )}
    </li>
  );
}

type SlopeProps = {
  /** Gust of the usual take at either end. */
  from: number;
  to: number;
  margin: number;
  target: number;
  range: readonly [number, number];
  ends: readonly [number, number];
  ticks: readonly number[];
  /** Where four in five just pass. */
  mark: number | null;
  /** The ends are seconds, drawn even in doublings. */
  doublings?: boolean;
};

/** A slope from one end to the other, its pale edge over it, against the target. */
function Slope({
  from,
  to,
  margin,
  target,
  range,
  ends,
  ticks,
  mark,
  doublings = false,
}: SlopeProps) {
  const [box, width] = useWidth<HTMLDivElement>();
  const x = (doublings ? scaleLog() : scaleLinear())
    .domain(ends)
    .range([2, Math.max(3, width - 8)]);
  const y = scaleLinear([range[0] - 0.2, range[1] + 0.1], [HEIGHT - FOOT, 2]);
  const [left, right] = [x(ends[0]), x(ends[1])];
  const slope = (over: number) =>
    `M${left} ${HEIGHT - FOOT}L${left} ${y(from + over)}L${right} ${y(to + over)}L${right} ${HEIGHT - FOOT}Z`;
  const inside = ticks.filter((one) => one >= ends[0] && one <= ends[1]);
  return (
    <div ref={box}>
      {width > 0 && (
        <svg width={width} height={HEIGHT} aria-hidden="true" className="block">
          <path d={slope(margin)} fill="var(--ridge-1)" />
          <path d={slope(0)} fill="var(--ridge-3)" />
          <line x1={left} x2={right} y1={y(target)} y2={y(target)} stroke="var(--ember)" />
          {mark !== null && mark >= ends[0] && mark <= ends[1] && (
            <line
              x1={x(mark)}
              x2={x(mark)}
              y1={0}
              y2={HEIGHT - FOOT}
              stroke="var(--ink)"
              strokeWidth="2"
            />
          )}
          <TicksAcross ticks={inside} x={x} y={HEIGHT - 2} fine />
        </svg>
      )}
    </div>
  );
}
