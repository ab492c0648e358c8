import { Printer } from "lucide-react";
import { useEffect, type ReactNode } from "react";
import { useNavigate, useParams } from "react-router";
import {
  useBench,
  useBriefs,
  useKit,
  type BenchAnswer,
  type Kit,
  type SetupItem,
} from "../../../api/kit";
import { holdWords } from "./hold";
import * as format from "../../../formats";
import { StillBody } from "../../../body/StillBody";
import { Button } from "../../../ui/Button";
import { Facts, type Fact } from "../../../ui/Facts";
import { FaultView } from "../../../ui/FaultView";
import { Key } from "../../../keys/Key";
import { useKeys } from "../../../keys/useKeys";
import { useUnits, type InUnits } from "../../../ui/useUnits";
import { cameraOf, ROUTE_WORDS, setupInWords } from "../words";
import { askOf } from "./BenchPage";
import { moveFacts } from "./moveFacts";
import { MovePlan } from "./MovePlan";
import { MOVES } from "./moves";
import { NestedFrames } from "./PicturePanel";
import { shutter } from "./TimePanel";

const DRAWN_PX = 320;
const DRAWN_TALL_PX = 210;

/** One page to carry: what the set-up is, and the figures that are wanted on the spot. */
export function CardPage() {
  const { id } = useParams();
  const found = useKit();
  const item = found.data?.setups.find((one) => String(one.id) === id);
  const bench = useBench(item ? { setup: askOf(item), setupId: item.id, briefId: null } : null);
  const navigate = useNavigate();
  const print = () => window.print();
  useKeys({
    "Print the card": { p: print },
    "Back to the bench": { Escape: () => void navigate(`/kit/setups/${id ?? ""}`) },
  });
  useEffect(() => {
    document.title = `Card: ${item?.name ?? ""} · Ridgewind`;
  }, [item?.name]);
  if (found.isLoadingError) return <FaultView error={found.error} />;
  if (bench.isLoadingError) return <FaultView error={bench.error} />;
  if (found.data && !item) return <p className="p-8">There is no such set-up on the kit.</p>;
  if (!found.data || !item || !bench.data)
    return <p className="p-8 text-stone">Drawing the card…</p>;
  return (
    <div className="px-4 py-5 sm:px-8 print:p-0">
      <div className="mb-4 flex flex-wrap items-center gap-3 print:hidden">
        <Button look="main" onClick={print}>
          <Printer size={15} aria-hidden /> Print this card <Key>P</Key>
        </Button>
        <Button onClick={() => void navigate(`/kit/setups/${item.id}`)}>
          Back to the bench <Key>Esc</Key>
        </Button>
        <span className="text-note text-stone">One page, A5 or larger.</span>
      </div>
      <Card item={item} kit={found.data} answer={bench.data} />
    </div>
  );
}

type Props = { item: SetupItem; kit: Kit; answer: BenchAnswer };

function Card({ item, kit, answer }: Props) {
  const { inUnits } = useUnits();
  const brief = useBriefs().data?.briefs.find((one) => one.usual);
  const { picture, shake, time, move, rig, strap } = answer;
  const mode = cameraOf(kit, item.camera_id)?.spec.modes[item.optics.mode];
  const on = [
    item.optics.lens_stabiliser && "lens",
    item.optics.body_stabiliser && "body",
    item.optics.digital_stabiliser && "digital",
  ].filter(Boolean);
  return (
    <article
      data-testid="card"
      className="card-to-carry max-w-[720px] border border-line bg-paper p-5 print:max-w-none print:border-0 print:p-0"
    >
      <h1 className="title text-title leading-tight">{item.name}</h1>
      <p className="text-note text-stone">{setupInWords(item, kit)}</p>
      <p className="mb-3 text-note text-stone">
        Stabiliser {on.length > 0 ? `on: ${on.join(", ")}` : "off"}
        {brief && ` · brief: ${brief.name}, gust up to ${format.gust(brief.target)}`}
      </p>
      <div className="grid gap-x-6 gap-y-4 sm:grid-cols-2 print:grid-cols-2 [&_svg]:h-auto [&_svg]:max-w-full">
        <div className="min-w-0 space-y-4">
          {picture && (
            <Part words="Picture">
              <NestedFrames picture={picture} />
              <Facts facts={pictureFacts(picture, inUnits)} />
            </Part>
          )}
          <Part words="Time and shake">
            <Facts facts={timeFacts(time, shake, item, inUnits)} />
          </Part>
          {move && (
            <StillBody
              drill={MOVES[move.kind].drill}
              variation={null}
              view={MOVES[move.kind].body}
              className="h-[150px] [&_svg]:h-full!"
            />
          )}
        </div>
        <div className="min-w-0 space-y-4">
          {move && mode && (
            <Part words={`Move: ${MOVES[move.kind].words.toLowerCase()}`}>
              <MovePlan
                move={move}
                ask={item.bench.move}
                aspect={Math.min(1, mode.height_px / mode.width_px)}
                at={move.stations.length - 1}
                width={DRAWN_PX}
                height={DRAWN_TALL_PX}
              />
              <Facts facts={plannedFacts(move, item, inUnits)} />
            </Part>
          )}
          <Part words="Rig and strap">
            <Facts facts={rigFacts(rig, answer.strapped ? strap : null, inUnits)} />
          </Part>
        </div>
      </div>
      <p className="mt-3 border-t border-line pt-2 text-small text-stone">
        {answer.strapped &&
          strap?.on_neck &&
          `Let go of the strap between takes; ${Math.round(strap.limit_min)} minutes of pull at most. `}
        Stop with pain, numbness or dizziness. Look over the ground before you walk.
      </p>
    </article>
  );
}

function Part({ words, children }: { words: string; children: ReactNode }) {
  return (
    <section className="min-w-0 break-inside-avoid space-y-1.5">
      <h2 className="label-wide">{words}</h2>
      {children}
    </section>
  );
}

function pictureFacts(picture: NonNullable<BenchAnswer["picture"]>, inUnits: InUnits): Fact[] {
  return [
    { words: "Equivalent", value: inUnits("optics_mm", picture.focal_eq_mm) },
    { words: "Sees across", value: inUnits("degrees", picture.long_deg) },
    picture.budget_pct < 0
      ? { words: "Enlarged", value: format.times(picture.enlarged) }
      : { words: "Crop left", value: inUnits("percent", picture.budget_pct) },
  ];
}

function plannedFacts(
  move: NonNullable<BenchAnswer["move"]>,
  item: SetupItem,
  inUnits: InUnits,
): Fact[] {
  const ask = item.bench.move;
  const { amount, quantity } = MOVES[move.kind];
  return [
    { words: amount, value: inUnits(quantity, ask.amount) },
    { words: "In", value: inUnits("seconds", ask.seconds) },
    ...moveFacts(move, ask, inUnits).slice(0, 4),
    { words: "No faster than", value: inUnits("seconds", move.needed_s), warns: move.hurried },
  ];
}

function timeFacts(
  time: BenchAnswer["time"],
  shake: BenchAnswer["shake"],
  item: SetupItem,
  inUnits: InUnits,
): Fact[] {
  const facts: Fact[] = [];
  if (time) {
    const { shutter: chosen } = item.optics;
    facts.push(
      { words: "Hold for", value: holdWords(time, inUnits) },
      { words: "It plays at", value: format.share(time.playback) },
      { words: "Shutter", value: shutter(chosen ?? time.nearest) },
      { words: "No flicker at 50 Hz", value: shutter(time.nearest_safe_50) },
      { words: "No flicker at 60 Hz", value: shutter(time.nearest_safe_60) },
      { words: "Switched off", value: time.lost.length > 0 ? time.lost.join(", ") : "nothing" },
    );
  }
  if (shake) {
    const longest = shake.curve.longest_mm;
    facts.push({
      words: "Longest lens that usually passes",
      value: longest === null ? "none" : format.longestLens(longest),
    });
  }
  return facts;
}

function rigFacts(rig: BenchAnswer["rig"], strap: BenchAnswer["strap"], inUnits: InUnits): Fact[] {
  const facts: Fact[] = [];
  if (rig) facts.push({ words: "To carry", value: inUnits("heavy_g", rig.mass_g) });
  if (rig?.hang) {
    const { hang } = rig;
    facts.push({
      words: hang.level ? "Hangs" : hang.forward_deg > 0 ? "Hangs nose down" : "Hangs nose up",
      value: hang.level ? "level" : inUnits("degrees", Math.abs(hang.forward_deg)),
    });
    if (!hang.level && hang.counterweight_g !== null) {
      facts.push({ words: "Counterweight", value: inUnits("mass_g", hang.counterweight_g) });
    }
  }
  if (strap) {
    facts.push(
      { words: "Strap", value: ROUTE_WORDS[strap.route].toLowerCase() },
      { words: "Its mark", value: inUnits("body_mm", strap.taut_mm) },
      {
        words: "Scale shows",
        value: `${inUnits("scale_kg", strap.scale_low_kg)} to ${inUnits("scale_kg", strap.scale_high_kg)}`,
      },
    );
  }
  return facts;
}
