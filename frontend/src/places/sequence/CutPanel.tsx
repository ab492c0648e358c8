import type { BetterLine, Joined } from "../../api/joined";
import { Button } from "../../ui/Button";
import { cutWords, JOINED_WORDS } from "./pieces";

type CutProps = { joined: Joined; at: number; onTake: (better: BetterLine) => void };

/** One cut: what the motion does over it, and what would join better. */
export function CutPanel({ joined, at, onTake }: CutProps) {
  const cut = joined.cuts[at];
  const [before, after] = [joined.pieces[at], joined.pieces[at + 1]];
  if (!cut || !before || !after) return null;
  return (
    <section
      aria-label={`Cut ${at + 1}`}
      className="space-y-2 border-y border-line bg-paper px-4 py-3 sm:px-8"
    >
      <p>
        <b className="font-semibold">
          {before.subject} | {after.subject}.
        </b>{" "}
        {cutWords(cut, before, after)}
      </p>
      {cut.better.length > 0 && (
        <p className="flex flex-wrap gap-2">
          {cut.better.map((better) => (
            <Button key={better.words} onClick={() => onTake(better)}>
              {better.words}
              <span className="font-normal text-stone">
                then it{" "}
                {
                  JOINED_WORDS[
                    better.mismatch < 0.25 ? "matches" : better.mismatch > 1 ? "fights" : "passes"
                  ]
                }{" "}
                ({better.mismatch.toFixed(2)})
              </span>
            </Button>
          ))}
        </p>
      )}
    </section>
  );
}
