import { useBetterCuts, type BetterLine, type Joined } from "../../api/joined";
import { Button } from "../../ui/Button";
import { cutWords, JOINED_WORDS } from "./pieces";

type CutProps = { id: number; joined: Joined; at: number; onTake: (better: BetterLine) => void };

/** One cut: what the motion does over it, and what would join better. */
export function CutPanel({ id, joined, at, onTake }: CutProps) {
  const cut = joined.cuts[at];
  const [before, after] = [joined.pieces[at], joined.pieces[at + 1]];
  const sides = before && after ? [before.piece, after.piece] : [];
  const found = useBetterCuts(id, at, sides);
  if (!cut || !before || !after) return null;
  const better = found.data?.better ?? [];
  const looks = cut.joined !== null && cut.joined !== "matches";
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
      {looks && !found.data && <p className="text-note text-stone">Looking for a better join…</p>}
      {looks && found.data && better.length === 0 && (
        <p className="text-note text-stone">
          No trim, speed or reversal within what was filmed joins it better.
        </p>
      )}
      {better.length > 0 && (
        <p className="flex flex-wrap gap-2">
          {better.map((one) => (
            <Button
              key={one.words}
              className="text-left whitespace-normal"
              onClick={() => onTake(one)}
            >
              {one.words}
              <span className="font-normal text-stone">
                then it {JOINED_WORDS[one.joined]} ({one.mismatch.toFixed(2)})
              </span>
            </Button>
          ))}
        </p>
      )}
    </section>
  );
}
