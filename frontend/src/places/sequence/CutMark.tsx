import type { CutItem, PieceItem } from "../../api/joined";
import { JOINED_WORDS, velocityArrow, velocityWords } from "./pieces";

const LOOKS = {
  matches: "bg-lichen text-ink",
  passes: "bg-paper text-ink",
  fights: "bg-ember text-paper",
};

type CutProps = {
  cut: CutItem;
  chosen: boolean;
  before: PieceItem;
  after: PieceItem;
  onChoose: () => void;
};

/** How a cut joins: a word, and where the picture goes on either side. */
export function CutMark({ cut, chosen, before, after, onChoose }: CutProps) {
  if (!cut.joined) return null;
  const words = JOINED_WORDS[cut.joined];
  return (
    <button
      type="button"
      onClick={onChoose}
      aria-pressed={chosen}
      className={`rounded absolute top-1 left-0 z-(--layer-raised) flex -translate-x-1/2 items-center gap-0.5 border px-1 text-fine font-semibold ${chosen ? "border-ink" : "border-ridge-2"} ${LOOKS[cut.joined]}`}
    >
      <Going velocity={before.exit} />
      <span className="sr-only">
        The cut {words}: {velocityWords(before.exit)}, then {velocityWords(after.entry)}
        {cut.jump && "; gust leaps"}
      </span>
      <span aria-hidden="true">
        {cut.joined === "matches" ? "=" : cut.joined === "passes" ? "|" : "≠"}
      </span>
      <Going velocity={after.entry} />
      {cut.jump && <span aria-hidden="true">!</span>}
    </button>
  );
}

function Going({ velocity }: { velocity: readonly number[] | null }) {
  const arrow = velocityArrow(velocity);
  return (
    <svg viewBox="-1.2 -1.2 2.4 2.4" aria-hidden="true" className="size-3.5">
      {arrow ? (
        <>
          <line
            x1={-arrow.x}
            y1={-arrow.y}
            x2={arrow.x}
            y2={arrow.y}
            stroke="currentColor"
            strokeWidth="0.3"
          />
          <circle cx={arrow.x} cy={arrow.y} r="0.34" fill="currentColor" />
        </>
      ) : (
        <circle r="0.25" fill="currentColor" />
      )}
    </svg>
  );
}
