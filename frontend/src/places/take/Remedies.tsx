import type { Judgement, RemedyLine } from "../../api/client";
import * as format from "../../formats";
import { Button } from "../../ui/Button";
import { Key } from "../../ui/Key";

type Props = { judgement: Judgement; onPlay: (remedy: RemedyLine) => void };

/** What to do with the take, in the order that a shooter would choose. */
export function Remedies({ judgement, onPlay }: Props) {
  const chosen = judgement.remedies.find((remedy) => remedy.remedy === judgement.verdict);
  return (
    <section aria-label="What to do with it">
      <h2 className="label-wide">What to do with it</h2>
      <ol className="mt-2 border-t border-line">
        {judgement.remedies.map((remedy) => (
          <Row key={remedy.remedy} remedy={remedy} chosen={remedy === chosen} />
        ))}
      </ol>
      <p className="sr-only" aria-live="polite" data-testid="verdict-text">
        {judgement.text}
      </p>
      {chosen && chosen.start_s !== null && (
        <div className="mt-3">
          <Button look="main" onClick={() => onPlay(chosen)}>
            {PLAY_WORDS[chosen.remedy]} <Key>Enter</Key>
          </Button>
        </div>
      )}
    </section>
  );
}

const PLAY_WORDS = {
  keep: "Play it through",
  lee: "Play the lee",
  slow: "Play it slowed",
  polish: "Play it unpolished",
  slow_polish: "Play it slowed, unpolished",
  retake: "",
} as const;

function Row({ remedy, chosen }: { remedy: RemedyLine; chosen: boolean }) {
  const passed = remedy.passes && remedy.remedy !== "retake";
  const tone = chosen ? "bg-lichen" : "";
  const over =
    remedy.gust !== null && !remedy.passes && remedy.start_s !== null && remedy.remedy === "keep";
  const words =
    remedy.remedy === "slow" && remedy.gust !== null
      ? `Slow to ${format.share(remedy.rate)}`
      : format.REMEDY_WORDS[remedy.remedy];
  return (
    <li
      className={`grid grid-cols-[104px_40px_1fr] items-baseline gap-2.5 border-b border-line px-3 py-[7px] ${tone}`}
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
        className={`figure-narrow text-right text-[21px] leading-none ${over ? "text-ember" : ""}`}
      >
        {format.gust(remedy.gust)}
      </span>
      <span className={`text-note leading-[1.3] ${chosen ? "" : "text-stone"}`}>
        {remedy.reason}
        {remedy.cost && passed && !remedy.reason.includes(remedy.cost) && (
          <span className="block">Costs: {remedy.cost}.</span>
        )}
      </span>
    </li>
  );
}
