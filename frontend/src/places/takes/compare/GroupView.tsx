import { useEffect, useRef } from "react";
import { Link } from "react-router";
import type { Choice } from "../../../api/decisions";
import type { Group, Side } from "../../../api/compare";
import * as format from "../../../formats";
import { useWidth } from "../../../ui/useWidth";
import { commonTime, ridgesOf, targetY, zeroOf, type Alignment } from "./align";
import { nameUnder } from "./words";

const RIDGE_PX = 46;

type Props = {
  group: Group;
  chosen: number | null;
  alignment: Alignment;
  onChoose: (id: number) => void;
  onSettle: (side: Side, choice: Choice) => void;
};

/** Takes of one shot, their ridges stacked on one time line, with the best of them. */
export function GroupView({ group, chosen, alignment, onChoose, onSettle }: Props) {
  const tie = group.best.length > 1;
  const best = group.sides.find((side) => side.take.id === group.best[0]);
  return (
    <section aria-label={group.title} className="border-b border-line pb-1">
      <header className="flex flex-wrap items-baseline gap-x-3 px-4 pt-3 pb-1 sm:px-8">
        <h2 className="font-semibold">
          {group.drill ? (
            <Link to={`/plan/drills/${group.drill.key}`} className="hover:underline">
              {group.title}
            </Link>
          ) : (
            group.title
          )}
        </h2>
        {group.reason && (
          <p className="text-note text-stone">
            {!tie && group.best.length === 1 && (
              <b className="font-semibold text-ink">
                Best: {nameUnder(group.title, best?.take.name ?? "")}.{" "}
              </b>
            )}
            {group.reason}
          </p>
        )}
        {group.missing > 0 && (
          <p className="rounded ml-auto bg-lamp px-1.5 text-small font-semibold text-lamp-ink">
            {group.missing_words}
          </p>
        )}
      </header>
      {group.sides.length > 0 && <TimeAxis sides={group.sides} alignment={alignment} />}
      <ul>
        {group.sides.map((side) => (
          <SideRow
            key={side.take.id}
            side={side}
            heading={group.title}
            sides={group.sides}
            best={group.best.includes(side.take.id)}
            tie={tie}
            on={side.take.id === chosen}
            alignment={alignment}
            onChoose={() => onChoose(side.take.id)}
            onSettle={(choice) => onSettle(side, choice)}
          />
        ))}
      </ul>
    </section>
  );
}

type RowProps = {
  side: Side;
  heading: string;
  sides: Side[];
  best: boolean;
  tie: boolean;
  on: boolean;
  alignment: Alignment;
  onChoose: () => void;
  onSettle: (choice: Choice) => void;
};

function SideRow({ side, heading, sides, best, tie, on, alignment, onChoose, onSettle }: RowProps) {
  const { take } = side;
  const over = take.gust !== null && take.gust > take.target;
  const settled = take.choice;
  const row = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (on) void row.current?.scrollIntoView({ block: "nearest" });
  }, [on]);
  return (
    <li
      ref={row}
      className={`relative grid grid-cols-[minmax(0,1fr)_48px] items-center gap-x-4 gap-y-1 border-t border-line px-4 py-1 sm:px-8 md:grid-cols-[176px_minmax(0,1fr)_48px_84px_218px] ${on ? "bg-paper" : ""}`}
      aria-current={on}
      data-testid={`side-${take.id}`}
      data-choice={settled ?? "open"}
    >
      {on && <i className="absolute inset-y-0 left-0 w-1 bg-lamp" />}
      <button type="button" className="min-w-0 text-left" onClick={onChoose}>
        <span
          className={`block truncate font-semibold ${settled === "reject" ? "text-stone line-through" : ""}`}
        >
          {nameUnder(heading, take.name)}
        </span>
        <span className="block truncate text-small text-stone">
          {side.variation || format.seconds(take.duration_s)}
          {best && (
            <b className="ml-1.5 font-semibold text-lichen-deep">{tie ? "level" : "best"}</b>
          )}
        </span>
      </button>
      <div
        className={`order-last col-span-2 md:order-none md:col-span-1 ${settled === "reject" ? "opacity-50" : ""}`}
      >
        <RidgeLine side={side} sides={sides} alignment={alignment} />
      </div>
      <p
        className={`figure-narrow text-right text-title leading-none ${over ? "text-ember-deep" : ""}`}
      >
        <span className="sr-only">Gust </span>
        {format.gust(take.gust)}
      </p>
      <p className="hidden text-small leading-tight text-stone md:block">
        peak {format.gust(take.peak_gust)}
        <br />
        {side.evenness !== null
          ? `${format.share(side.evenness)} even`
          : `lee ${format.seconds(side.lee_s)}`}
      </p>
      <div
        role="group"
        aria-label={`Settle ${take.name}`}
        className="col-span-2 flex items-center gap-1 md:col-span-1"
      >
        {(["keep", "reject", "retake"] as const).map((choice) => (
          <button
            key={choice}
            type="button"
            aria-pressed={settled === choice}
            onClick={() => onSettle(choice)}
            className={`rounded border px-2 py-1 text-small font-semibold ${settled === choice ? "border-ink bg-ink text-paper" : "border-line bg-paper text-stone hover:text-ink"}`}
          >
            {settled === choice ? `✓ ${ACTS[choice]}` : ACTS[choice]}
          </button>
        ))}
      </div>
    </li>
  );
}

const ACTS = { keep: "Keep", reject: "Reject", retake: "Again" } as const;

/** Seconds along the common time line, over its column. */
function TimeAxis({ sides, alignment }: { sides: Side[]; alignment: Alignment }) {
  const [box, width] = useWidth<HTMLDivElement>();
  const x = commonTime(sides, alignment, Math.max(width, 1));
  return (
    <div className="hidden gap-x-4 px-8 md:grid md:grid-cols-[176px_minmax(0,1fr)_48px_84px_218px]">
      <div className="col-start-2 h-[16px]" ref={box}>
        <svg width={width} height={16} aria-hidden="true" className="overflow-visible">
          {x.ticks(Math.max(2, Math.floor(width / 70))).map((tick) => (
            <text
              className="text-fine"
              key={tick}
              x={x(tick)}
              y={12}
              textAnchor="middle"
              fill="var(--stone)"
            >
              {tick === 0 ? (alignment === "move" ? "move" : "0 s") : tick}
            </text>
          ))}
        </svg>
      </div>
    </div>
  );
}

type LineProps = { side: Side; sides: Side[]; alignment: Alignment };

function RidgeLine({ side, sides, alignment }: LineProps) {
  const [box, width] = useWidth<HTMLDivElement>();
  const x = commonTime(sides, alignment, Math.max(width, 1));
  const zero = zeroOf(side, alignment);
  const target = targetY(side.take.target, RIDGE_PX);
  return (
    <div ref={box} style={{ height: RIDGE_PX }}>
      {width > 0 && (
        <svg width={width} height={RIDGE_PX} aria-hidden="true">
          {ridgesOf(side, zero, x, RIDGE_PX).map((layer) => (
            <path key={layer.name} d={layer.path} fill={layer.colour} />
          ))}
          <line x2={width} y1={target} y2={target} stroke="var(--ink)" strokeDasharray="1.5 2.5" />
          {alignment === "move" && side.move_s !== null && (
            <line x1={x(0)} x2={x(0)} y1={0} y2={RIDGE_PX} stroke="var(--lamp)" strokeWidth="2" />
          )}
        </svg>
      )}
    </div>
  );
}
