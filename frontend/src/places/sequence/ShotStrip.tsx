import { area, curveMonotoneX } from "d3-shape";
import { useState } from "react";
import type { ShotItem } from "../../api/outings";
import * as format from "../../formats";
import { useDrag } from "../../ui/useDrag";
import { useWidth } from "../../ui/useWidth";
import { STORY } from "./frame";
import { ShotFrame } from "./ShotFrame";
import { GAP, gridOf, moved, placeAt } from "./strip";
import { besideFrame, frameWords } from "./words";

const WORDS_BELOW = 58;
const STORY_HEIGHT = 22;
/** Before so many pixels a press is a choice, and no drag. */
const LEAST_DRAG = 6;

type Props = {
  shots: readonly ShotItem[];
  chosen: number | null;
  /** Shots that what is missing speaks of. */
  marked: ReadonlySet<number>;
  onChoose: (id: number) => void;
  /** Absent where the order is worked out. */
  onOrder?: (ids: number[]) => void;
};

/** Small frames in order, the story's rise and fall beneath; dragged to another place. */
export function ShotStrip({ shots, chosen, marked, onChoose, onOrder }: Props) {
  const [box, width] = useWidth<HTMLDivElement>();
  const grid = gridOf(width, WORDS_BELOW + STORY_HEIGHT);
  const [held, setHeld] = useState<{ from: number; to: number } | null>(null);
  const shown = held ? moved(shots, held.from, held.to) : shots;
  const drag = useDrag<{ from: number; x: number; y: number }>({
    onStart: ({ x, y }, event) => {
      const tile = (event.target as Element).closest("[data-place]");
      if (!tile || !onOrder) return null;
      return { from: Number(tile.getAttribute("data-place")), x, y };
    },
    onMove: ({ x, y }, { from, x: x0, y: y0 }) => {
      if (!held && Math.hypot(x - x0, y - y0) < LEAST_DRAG) return;
      setHeld({ from, to: placeAt(grid, x, y, shots.length) });
    },
    onEnd: (_, { from }) => {
      const one = shots[from];
      if (!held && one) onChoose(one.id);
      if (held && held.from !== held.to) {
        onOrder?.(moved(shots, held.from, held.to).map((shot) => shot.id));
      }
      setHeld(null);
    },
    onCancel: () => setHeld(null),
  });
  return (
    <div ref={box} className="touch-pan-y" {...(onOrder ? drag : {})}>
      {width > 0 && (
        <ol
          aria-label="Shots"
          className="grid"
          style={{ gap: GAP, gridTemplateColumns: `repeat(${grid.columns}, minmax(0, 1fr))` }}
        >
          {shown.map((item, place) => (
            <Tile
              key={item.id}
              item={item}
              place={place}
              chosen={item.id === chosen}
              marked={marked.has(item.id)}
              held={held?.to === place}
              around={[shown[place - 1], item, shown[place + 1]]}
              draggable={onOrder !== undefined}
              onChoose={() => onChoose(item.id)}
            />
          ))}
        </ol>
      )}
    </div>
  );
}

type TileProps = {
  item: ShotItem;
  place: number;
  chosen: boolean;
  marked: boolean;
  held: boolean;
  around: (ShotItem | undefined)[];
  draggable: boolean;
  onChoose: () => void;
};

const STATES = { open: "", got: "got", impossible: "not possible" };

function Tile({ item, place, chosen, marked, held, around, draggable, onChoose }: TileProps) {
  const { shot, state } = item;
  const beside = besideFrame(shot);
  return (
    <li data-place={place} data-testid={`shot-${place}`} className={held ? "opacity-60" : ""}>
      <button
        type="button"
        aria-pressed={chosen}
        // Where it can be dragged, a pointer chooses at the end of a press, unless it dragged.
        onClick={(event) => (event.detail === 0 || !draggable) && onChoose()}
        className={`block w-full select-none text-left ${chosen ? "outline-2 outline-offset-2 outline-ink" : ""}`}
      >
        <span className="relative block">
          <ShotFrame
            shot={shot}
            words={`Shot ${place + 1}: ${frameWords(shot, item.move_words)}`}
          />
          {state !== "open" && (
            <b
              className={`absolute top-1 left-1 px-1 text-fine ${state === "got" ? "bg-lichen text-ink" : "bg-ember text-paper"}`}
            >
              {STATES[state]}
            </b>
          )}
          {marked && (
            <i
              className="absolute top-1 right-1 size-2.5 rotate-45 border border-paper bg-ember"
              title="Something is missing about it"
            />
          )}
        </span>
        <Story around={around} />
        <span className="block h-[58px] overflow-hidden text-small leading-snug">
          <b className="font-semibold">
            {place + 1} {shot.subject}
          </b>
          <span className="block text-stone">
            {[shot.size, format.seconds(shot.seconds), ...beside].join(" · ")}
          </span>
        </span>
      </button>
    </li>
  );
}

/** This shot's piece of the story's line, from half way to the one before to half way to the next. */
function Story({ around }: { around: (ShotItem | undefined)[] }) {
  const own = STORY[around[1]?.shot.part ?? "what"];
  const [before, after] = [around[0], around[2]].map((one) =>
    one ? (STORY[one.shot.part] + own) / 2 : own * 0.5,
  );
  const line = area<[number, number]>()
    .x(([x]) => x)
    .y0(1)
    .y1(([, high]) => 1 - 0.9 * high)
    .curve(curveMonotoneX);
  return (
    <svg
      viewBox="0 0 1 1"
      preserveAspectRatio="none"
      aria-hidden="true"
      className="block h-[18px] w-[calc(100%+10px)]"
    >
      <path
        d={
          line([
            [0, before ?? own],
            [0.5, own],
            [1, after ?? own],
          ]) ?? ""
        }
        fill="var(--ridge-3)"
      />
    </svg>
  );
}
