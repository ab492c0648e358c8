import { useState } from "react";
import { useDrillFigure, type DrillFigure, type VariationFigure } from "../../../api/figures";
import { BodyPlayer } from "../../../body/BodyPlayer";
import { BodyView } from "../../../body/BodyView";
import { boundsOf, type View } from "../../../body/project";

/** What a part of a pose is called where two poses differ in it. */
const PART_WORDS: Record<string, string> = {
  feet: "width of the feet",
  ahead: "length of the step",
  feet_turn_deg: "where the feet point",
  knees_deg: "knees",
  raised: "foot on a step",
  turn_deg: "turn of the trunk",
  shift: "weight",
  lean_deg: "lean",
  elbows: "elbows",
  right: "right hand",
  left: "left hand",
  height: "height of the camera",
  reach: "how far out the camera is",
  tilt_deg: "tilt",
  contacts: "points of contact",
  strap: "route of the strap",
  pull: "pull of the strap",
  support: "what carries",
  base: "how one stands",
  move: "the move",
  gait: "the foot",
  seconds: "pace",
};
const LEAST_M = 1.9;

/** A drill's ways, drawn: the chosen one large and moving, all of them beside each other. */
export function DrillBody({ drillKey }: { drillKey: string }) {
  const found = useDrillFigure(drillKey).data;
  const [chosen, setChosen] = useState<string | null>(null);
  if (!found) return <div className="h-[300px] border-y border-line bg-paper" />;
  const figure =
    found.figures.find((one) => one.key === chosen) ??
    found.figures.find((one) => !one.control) ??
    found.figures[0];
  if (!figure) return null;
  return (
    <section aria-label="The body, drawn" className="mb-4 border-y border-line bg-paper">
      <BodyPlayer key={figure.key} names={found.joints} figure={figure} />
      <ul className="grid grid-cols-2 border-t border-line sm:grid-cols-4">
        {found.figures.map((one) => (
          <Way
            key={one.key}
            found={found}
            one={one}
            chosen={one === figure}
            onChoose={() => setChosen(one.key)}
          />
        ))}
      </ul>
    </section>
  );
}

type WayProps = {
  found: DrillFigure;
  one: VariationFigure;
  chosen: boolean;
  onChoose: () => void;
};

function Way({ found, one, chosen, onChoose }: WayProps) {
  const view = telling(found);
  const frames = found.figures.flatMap((each) => each.frames);
  const frame = one.frames[one.cycle ? 0 : one.frames.length - 1];
  if (!frame) return null;
  return (
    <li className="border-l border-line first:border-l-0">
      <button
        type="button"
        aria-pressed={chosen}
        onClick={onChoose}
        className="relative block h-full w-full px-3 pb-2 text-left align-top hover:bg-mist"
      >
        {chosen && <i className="absolute inset-x-0 top-0 h-1 bg-lamp" />}
        <span className="block h-[130px]">
          <BodyView
            names={found.joints}
            figure={one}
            frame={frame}
            view={view}
            bounds={boundsOf(frames, view, LEAST_M)}
            marked
          />
        </span>
        <b className="block font-semibold">{one.name}</b>
        <span className="block text-small text-stone">
          {one.control
            ? "the plain control"
            : one.differs.length > 0
              ? `differs: ${one.differs.map((part) => PART_WORDS[part] ?? part).join(", ")}`
              : "the same pose, done otherwise"}
        </span>
      </button>
    </li>
  );
}

/** From where the ways are told apart best: from ahead where feet or elbows differ. */
function telling(found: DrillFigure): View {
  const differs = new Set(found.figures.flatMap((one) => one.differs));
  return ["feet", "elbows", "raised"].some((part) => differs.has(part)) ? "front" : "side";
}
