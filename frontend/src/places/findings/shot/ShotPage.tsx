import { useEffect, useState } from "react";
import { Link } from "react-router";
import { useShot, type ShotAnswer, type ShotAsked } from "../../../api/shot";
import * as format from "../../../formats";
import { Key } from "../../../keys/Key";
import { useKeys } from "../../../keys/useKeys";
import { FaultView } from "../../../ui/FaultView";
import { NumberField } from "../../../ui/NumberField";
import { Segments } from "../../../ui/Segments";
import { Select } from "../../../ui/Select";
import { Toggle } from "../../../ui/Toggle";
import { useRemembered } from "../../../ui/useRemembered";
import { useSettled } from "../../../ui/useSettled";
import { FindingsTabs } from "../FindingsTabs";
import { lensBy, LensSlider } from "../LensSlider";
import { Delivery } from "./Delivery";
import { MatchClip } from "./MatchClip";
import { LensReach } from "./LensReach";
import { Options, useActs } from "./Options";
import { framingLens, outlookWords } from "./words";

const FIRST: ShotAsked = { move: "still", focal_eq_mm: 50 };
const MOVES = [
  { value: "still", words: "Still" },
  { value: "move", words: "A move" },
  { value: "walk", words: "A walk" },
] as const;

/** How do I get this shot: asked in one line, answered by the ways, the cheapest first. */
export function ShotPage() {
  const [asked, setAsked] = useRemembered<ShotAsked>("shot", FIRST);
  const settled = useSettled(asked);
  const found = useShot(settled);
  const answer = found.data;
  // Until the answer comes, what is shown is the answer to the question before.
  const waits = found.isPlaceholderData || settled !== asked;
  const [chosen, setChosen] = useState(0);
  const acts = useActs(answer);
  const put = (part: Partial<ShotAsked>) => {
    setChosen(0);
    setAsked({ ...asked, ...part });
  };
  const count = answer?.options.length ?? 0;
  const move = (step: number) => setChosen(Math.max(0, Math.min(count - 1, chosen + step)));
  const one = answer?.options[chosen];
  useEffect(() => {
    document.title = "Get a shot · Ridgewind";
  }, []);
  useKeys({
    "A shorter or a longer lens": {
      ArrowLeft: () => put({ focal_eq_mm: lensBy(asked.focal_eq_mm, -2) }),
      ArrowRight: () => put({ focal_eq_mm: lensBy(asked.focal_eq_mm, 2) }),
    },
    "Choose a way": { ArrowUp: () => move(-1), ArrowDown: () => move(1) },
    "Practise this": { Enter: () => one && !waits && acts.practise(one) },
    "Take this set-up": { u: () => one && !waits && one.lens !== null && acts.takeSetup(one) },
  });
  if (found.isLoadingError) return <FaultView error={found.error} />;
  return (
    <>
      <FindingsTabs />
      <header className="border-b border-line px-4 pt-4 pb-3 sm:px-8">
        <h1 className="title text-title leading-tight">How do I get this shot?</h1>
      </header>
      {answer && <Asked asked={asked} answer={answer} put={put} />}
      {answer && (
        <>
          <div className="grid grid-cols-1 items-center gap-x-8 gap-y-2 px-4 py-3 sm:px-8 lg:grid-cols-2">
            <p className="text-large leading-snug" aria-live="polite" data-testid="outlook">
              {outlookWords(answer)}{" "}
              <span className="text-note whitespace-nowrap text-stone">
                Gust {format.gust(answer.target)} or under.
              </span>
            </p>
            <LensReach answer={answer} focal={asked.focal_eq_mm} />
          </div>
          <Options answer={answer} chosen={chosen} waits={waits} />
          <p className="border-t border-line px-4 py-3 text-small text-stone sm:px-8">
            <Key>↑</Key> <Key>↓</Key> choose, <Key>Enter</Key> practises, <Key>U</Key> takes the
            set-up. Predicted from your own takes, gust and length; polishes are tried on takes
            drawn from your hand.
            {answer.recorded === 0 && (
              <>
                {" "}
                Nothing of yours is on record yet: all of this is typical.{" "}
                <Link to="/findings/hand" className="underline">
                  Take a first look at your hand
                </Link>
                .
              </>
            )}
          </p>
        </>
      )}
    </>
  );
}

type AskedProps = {
  asked: ShotAsked;
  answer: ShotAnswer;
  put: (part: Partial<ShotAsked>) => void;
};

/** The shot in one line of choices; a brief fills in what is not said. */
function Asked({ asked, answer, put }: AskedProps) {
  return (
    <div className="flex flex-wrap items-center gap-x-5 gap-y-3 border-b border-line px-4 py-3 sm:px-8">
      <Select
        label="Brief"
        value={String(answer.brief.id)}
        options={answer.briefs.map((one) => ({ value: String(one.id), words: one.name }))}
        onChange={(id) =>
          put({
            brief_id: Number(id),
            feel: undefined,
            target: undefined,
            wanted_s: undefined,
            keep_sound: undefined,
            screen: undefined,
            delivery_fps: undefined,
            delivery_width_px: undefined,
          })
        }
      />
      <Select
        label="Feel"
        value={answer.feel}
        options={Object.entries(format.FEEL_WORDS).map(([value, words]) => ({
          value: value as ShotAnswer["feel"],
          words,
        }))}
        onChange={(feel) => put({ feel, target: undefined })}
      />
      <Segments
        label="Move"
        value={asked.move}
        options={MOVES}
        onChange={(next) => put({ move: next })}
      />
      <Framing asked={asked} put={put} />
      <span className="flex items-center gap-2 text-note font-medium">
        On screen
        <NumberField
          label="Seconds on screen"
          unit="s"
          min={0.5}
          max={600}
          value={answer.wanted_s}
          onChange={(wanted_s) => put({ wanted_s })}
        />
      </span>
      <Toggle
        label="Keep the sound"
        on={answer.keep_sound}
        onChange={(keep_sound) => put({ keep_sound })}
      />
      <Delivery answer={answer} put={put} />
      <MatchClip put={put} />
      <Select
        label="Set-up"
        value={String(answer.setup.id)}
        options={answer.setups.map((one) => ({ value: String(one.id), words: one.name }))}
        onChange={(id) => put({ setup_id: Number(id) })}
      />
    </div>
  );
}

type How = "lens" | "framing";
const HOWS = [
  { value: "lens", words: "Lens" },
  { value: "framing", words: "Framing" },
] as const;

/** The lens itself, or what it follows from: how much the frame shows, and from how far. */
function Framing({ asked, put }: Omit<AskedProps, "answer">) {
  const [how, setHow] = useState<How>("lens");
  const [framing, setFraming] = useRemembered("framing", { across: 3, distance: 5 });
  const frame = (part: Partial<typeof framing>) => {
    const next = { ...framing, ...part };
    setFraming(next);
    put({ focal_eq_mm: framingLens(next.across, next.distance) });
  };
  return (
    <span className="flex flex-wrap items-center gap-2">
      <Segments
        label="By"
        value={how}
        options={HOWS}
        onChange={(next) => {
          setHow(next);
          if (next === "framing") frame({});
        }}
      />
      {how === "lens" ? (
        <LensSlider mm={asked.focal_eq_mm} onChange={(focal_eq_mm) => put({ focal_eq_mm })} />
      ) : (
        <span className="flex flex-wrap items-center gap-2 text-note">
          shows
          <NumberField
            label="What the frame shows across"
            unit="m"
            min={0.05}
            max={500}
            value={framing.across}
            onChange={(across) => frame({ across })}
          />
          from
          <NumberField
            label="Distance"
            unit="m"
            min={0.1}
            max={2000}
            value={framing.distance}
            onChange={(distance) => frame({ distance })}
          />
          <b className="font-semibold">{format.millimetres(asked.focal_eq_mm)}</b>
        </span>
      )}
    </span>
  );
}
