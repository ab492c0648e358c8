import { Link } from "react-router";
import { useLimits } from "../../api/limits";
import type { PlannedShot, ShotItem } from "../../api/outings";
import { SmallBody } from "../../body/SmallBody";
import * as format from "../../formats";
import { NumberField } from "../../ui/NumberField";
import { Segments } from "../../ui/Segments";
import { Select } from "../../ui/Select";
import { Toggle } from "../../ui/Toggle";
import { shotLimits, travelWords } from "./shotLimits";
import { ShotFrame } from "./ShotFrame";
import { Words } from "./Words";
import { DRILL_OF_MOVE, HEADINGS, HEIGHTS, JOININGS, LIGHTS, MOVES, PARTS, SIZES } from "./words";

type Props = {
  item: ShotItem;
  place: number;
  /** The brief of the outing, null for the one in use. */
  brief_id: number | null;
  onChange: (shot: PlannedShot) => void;
};

/** One shot, changed by choices; its frame answers at once. */
export function ShotEditor({ item, place, brief_id, onChange }: Props) {
  const limits = useLimits(brief_id).data;
  const { shot } = item;
  const change = (part: Partial<PlannedShot>) => onChange({ ...shot, ...part });
  const ways = HEADINGS[shot.move];
  const travel = travelWords(shot.move, item.unhurried_pct, limits?.focal_eq_mm ?? null);
  return (
    <section
      aria-label={`Shot ${place + 1}`}
      className="grid gap-x-6 gap-y-3 border-y border-line bg-paper px-4 py-4 sm:px-8 md:grid-cols-[300px_1fr]"
    >
      <div>
        <ShotFrame shot={shot} />
        <div className="mt-2 flex items-end gap-3">
          <SmallBody drill={DRILL_OF_MOVE[shot.move]} className="h-20 w-20" />
          <p className="text-note text-stone">
            Film {format.seconds(item.filmed_s)}
            {shot.playback < 1 && ` for ${format.seconds(shot.seconds)} on screen`}
            {shot.takes > 1 && `, ${shot.takes} takes`}.{" "}
            <Link to={`/plan/drills/${DRILL_OF_MOVE[shot.move]}`} className="underline">
              How it is held
            </Link>
            {", "}
            <Link to="/findings/shot" className="underline">
              what makes it pass
            </Link>
          </p>
        </div>
        {travel && <p className="mt-1 text-note text-stone">{travel}</p>}
        {limits &&
          shotLimits(shot, limits).map((words) => (
            <p key={words} className="mt-1 border-l-2 border-lamp pl-2 text-note">
              {words}
            </p>
          ))}
      </div>
      <div className="min-w-0 space-y-3 text-note">
        <Words
          label="What it shows"
          value={shot.subject}
          onChange={(subject) => subject.trim() && change({ subject })}
        />
        <Row>
          <Segments
            label="Size"
            value={shot.size}
            options={SIZES}
            onChange={(size) => change({ size })}
          />
          <Segments
            label="Height of the camera"
            value={shot.height}
            options={HEIGHTS}
            onChange={(height) => change({ height })}
          />
        </Row>
        <Row>
          <Select
            label="Move"
            value={shot.move}
            options={MOVES}
            onChange={(move) => change({ move, heading: HEADINGS[move][0] ?? null })}
          />
          {ways.length > 1 && shot.heading && (
            <Segments
              label="Way"
              value={shot.heading}
              options={ways.map((way) => ({ value: way, words: way }))}
              onChange={(heading) => change({ heading })}
            />
          )}
          {shot.move === "still" && (
            <Toggle
              label="The movement comes into the frame"
              on={shot.enters}
              onChange={(enters) => change({ enters })}
            />
          )}
        </Row>
        <Row>
          <NumberField
            label="Seconds on screen"
            unit="s"
            value={shot.seconds}
            min={0.5}
            max={600}
            onChange={(seconds) => change({ seconds })}
          />
          <NumberField
            label="Shown at"
            unit="% speed"
            value={Math.round(100 * shot.playback)}
            min={5}
            max={100}
            onChange={(share) => change({ playback: share / 100 })}
          />
          <NumberField
            label="Takes wanted"
            unit="takes"
            value={shot.takes}
            min={1}
            max={20}
            onChange={(takes) => change({ takes: Math.round(takes) })}
          />
          <Toggle label="Sound" on={shot.sound} onChange={(sound) => change({ sound })} />
        </Row>
        <Row>
          <Select
            label="Part of the story"
            value={shot.part}
            options={PARTS}
            onChange={(part) => change({ part })}
          />
          <Select
            label="How it joins"
            value={shot.joins}
            options={JOININGS}
            onChange={(joins) => change({ joins })}
          />
          <Select
            label="Light"
            value={shot.light}
            options={LIGHTS}
            onChange={(light) => change({ light })}
          />
        </Row>
        <div className="grid gap-3 sm:grid-cols-3">
          <Words
            label="Near in front"
            value={shot.foreground}
            onChange={(foreground) => change({ foreground })}
          />
          <Words
            label="Where you stand"
            value={shot.place}
            onChange={(place) => change({ place })}
          />
          <Words label="Ask first" value={shot.ask} onChange={(ask) => change({ ask })} />
        </div>
      </div>
    </section>
  );
}

function Row({ children }: { children: React.ReactNode }) {
  return <div className="flex flex-wrap items-center gap-3">{children}</div>;
}
