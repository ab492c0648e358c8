import { Eye } from "lucide-react";
import { Link } from "react-router";
import type { Judgement, RemedyLine } from "../../../api/client";
import type { RemedyDetails } from "../../../api/decisions";
import { SmallBody } from "../../../body/SmallBody";
import * as format from "../../../formats";
import { Button } from "../../../ui/Button";
import { Key } from "../../../keys/Key";

type Props = {
  judgement: Judgement;
  details: RemedyDetails | undefined;
  shown: RemedyLine["remedy"] | null;
  marked: boolean | null;
  /** There is a picture to be rendered; a motion log alone has none. */
  pictured: boolean;
  onPlay: (remedy: RemedyLine) => void;
  onPreview: (remedy: RemedyLine["remedy"]) => void;
  onMark: (smooth: boolean) => void;
};

/** What to do with the take: as shot first, then from cheap to dear. */
export function Remedies(props: Props) {
  const { judgement, details, shown, marked, pictured, onPlay, onPreview, onMark } = props;
  const chosen = judgement.remedies.find((remedy) => remedy.remedy === judgement.verdict);
  return (
    <section aria-label="What to do with it">
      <h2 className="label-wide">What to do with it</h2>
      {judgement.verdict === null && (
        <p className="mt-2 border-t border-line pt-3 text-heading">{judgement.text}</p>
      )}
      <ol className={judgement.verdict === null ? "" : "mt-2 border-t border-line"}>
        {judgement.remedies.map((remedy) => (
          <Row
            key={remedy.remedy}
            remedy={remedy}
            chosen={remedy === chosen}
            shown={remedy.remedy === shown}
            details={details}
            onPreview={pictured ? onPreview : null}
          />
        ))}
      </ol>
      <p className="sr-only" aria-live="polite" data-testid="verdict-text">
        {judgement.text}
      </p>
      <div className="mt-3 flex flex-wrap gap-2">
        {chosen && chosen.start_s !== null && (
          <Button look="main" onClick={() => onPlay(chosen)}>
            {PLAY_WORDS[chosen.remedy]} <Key>Enter</Key>
          </Button>
        )}
        <Button aria-pressed={marked === true} onClick={() => onMark(true)}>
          {marked === true ? "✓ Smooth to me" : "Smooth to me"} <Key>Y</Key>
        </Button>
        <Button aria-pressed={marked === false} onClick={() => onMark(false)}>
          {marked === false ? "✓ Not smooth" : "Not smooth"} <Key>N</Key>
        </Button>
      </div>
    </section>
  );
}

const PLAY_WORDS = {
  keep: "Play it through",
  lee: "Play the lee",
  slow: "Play it slowed",
  polish: "See it polished",
  polish_lee: "See the lee polished",
  slow_polish: "See it slowed and polished",
  hold: "See the subject held",
  retake: "",
} as const;

type RowProps = {
  remedy: RemedyLine;
  chosen: boolean;
  shown: boolean;
  details: RemedyDetails | undefined;
  onPreview: Props["onPreview"] | null;
};

function Row({ remedy, chosen, shown, details, onPreview }: RowProps) {
  const passed = remedy.passes && remedy.remedy !== "retake";
  const tone = chosen ? "bg-lichen" : shown ? "bg-paper" : "";
  const over =
    remedy.gust !== null && !remedy.passes && remedy.start_s !== null && remedy.remedy === "keep";
  const words =
    remedy.remedy === "slow" && remedy.gust !== null
      ? `Slow to ${format.share(remedy.rate)}`
      : format.REMEDY_WORDS[remedy.remedy];
  return (
    <li
      className={`grid grid-cols-[104px_36px_1fr_20px] items-baseline gap-2 border-b border-line px-2.5 py-[5px] ${tone}`}
      data-testid={`remedy-${remedy.remedy}`}
      data-verdict={chosen}
    >
      <span className={chosen || passed ? "font-semibold" : "font-medium text-stone"}>
        {words}
        {chosen && (
          <span className="label-wide block font-bold text-[color-mix(in_srgb,var(--lichen-deep)_65%,var(--ink))]!">
            verdict
          </span>
        )}
      </span>
      <span
        className={`figure-narrow text-right text-large leading-none ${over ? "text-ember-deep" : ""}`}
      >
        {format.gust(remedy.gust)}
      </span>
      <span className={`text-note leading-[1.3] md:flex md:gap-2 ${chosen ? "" : "text-stone"}`}>
        <span className="flex-1">
          {remedy.reason}
          {remedy.cost && passed && !said(remedy) && ` Costs: ${remedy.cost}.`}
          {remedy.remedy === "retake" && details?.drill && (
            <>
              {" "}
              <Link to={`/plan/drills/${details.drill.key}`} className="font-semibold underline">
                Drill: {details.drill.name}
              </Link>
            </>
          )}
        </span>
        {remedy.remedy === "retake" && details?.drill && (
          <SmallBody drill={details.drill.key} className="mt-1 h-18 w-18 md:mt-0" />
        )}
      </span>
      {onPreview && remedy.gust !== null ? (
        <button
          type="button"
          aria-pressed={shown}
          aria-label={`See it: ${words}`}
          title="See it rendered"
          onClick={() => onPreview(remedy.remedy)}
          className={`self-center ${shown ? "text-ink" : "text-stone hover:text-ink"}`}
        >
          <Eye size={17} strokeWidth={shown ? 2.6 : 1.7} aria-hidden />
        </button>
      ) : (
        <span />
      )}
    </li>
  );
}

/** Whether the reason already says what it costs. */
const said = (remedy: RemedyLine) =>
  remedy.remedy === "lee" ||
  remedy.cost
    .split(", ")
    .every((part) => remedy.reason.toLowerCase().includes(part.replace("sound lost", "no sound")));

/** What would help the next take without another technique. */
export function NextTime({ details }: { details: RemedyDetails | undefined }) {
  if (!details || details.hints.length === 0) return null;
  return (
    <section aria-label="Next time" className="text-note leading-[1.35]" data-testid="hints">
      <h2 className="label-wide mb-1">Or next time</h2>
      <ul>
        {details.hints.map((hint) => (
          <li key={hint.kind}>
            <b className="font-semibold">{HINT_WORDS[hint.kind]}</b>{" "}
            <span className="text-stone">{hint.text}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

const HINT_WORDS = {
  lens: "Wider:",
  rate: "Faster frames:",
  support: "Held otherwise:",
  limit: "Your limit:",
  three_legs: "Three legs:",
} as const;
