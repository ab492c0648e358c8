import type { Judgement } from "../../../api/client";
import * as format from "../../../formats";
import { SubjectNotes } from "./SubjectMark";
import { joinWords, moveFacts, moveWords } from "./moveWords";

type Props = { id: number; judgement: Judgement };

/** The move that was meant and how well it was made, or how far a held frame wandered. */
export function MoveNotes({ id, judgement }: Props) {
  const { move: found, steps } = judgement;
  if (!found) return null;
  const facts = found.move ? moveFacts(found.move) : [];
  return (
    <section aria-label="The move" className="border-t border-line px-4 py-3 sm:px-8">
      <h2 className="label-wide mb-1">The move</h2>
      <p className="text-lead">
        <b className="font-[650]">{found.move ? moveWords(found.move) : "Held."}</b>
        {!found.move && ` The frame wandered ${format.percentOfWidth(found.wander_pct)}.`}
        {steps &&
          ` Walked at ${(60 * steps.cadence_hz).toFixed(0)} steps a minute, ${format.share(steps.evenness)} even.`}
      </p>
      {facts.length > 0 && (
        <dl className="mt-1 flex flex-wrap gap-x-7 gap-y-1 text-note">
          {facts.map(([label, value]) => (
            <div key={label} className="flex gap-2">
              <dt className="text-stone">{label}</dt>
              <dd className="font-semibold">{value}</dd>
            </div>
          ))}
        </dl>
      )}
      <SubjectNotes id={id} />
      <p className="mt-1 text-note text-stone">
        For a join: it begins {joinWords(found.entry)} and ends {joinWords(found.exit)}.
      </p>
    </section>
  );
}
