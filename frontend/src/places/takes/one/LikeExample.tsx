import type { Judgement } from "../../../api/client";
import { BandStrip } from "../../../charts/BandStrip";
import { exampleWords } from "../../../charts/bandWords";
import { likenessWords } from "./likenessWords";

type Likeness = NonNullable<Judgement["likeness"]>;

/** The take against its brief's example: of what kinds of shake either is made. */
export function LikeExample({ likeness }: { likeness: Likeness }) {
  return (
    <section aria-label="Like the example" className="border-t border-line px-4 py-3 sm:px-8">
      <h2 className="label-wide">Like its example?</h2>
      <p className="max-w-[90ch]">{likenessWords(likeness)}</p>
      <dl className="mt-2 grid grid-cols-[auto_minmax(0,1fr)] items-center gap-x-4 gap-y-1.5 sm:grid-cols-[auto_minmax(0,420px)_1fr]">
        {(["example", "here"] as const).map((side) => (
          <div key={side} className="contents">
            <dt className="max-w-[22ch] truncate text-note font-medium">
              {side === "example" ? likeness.name : "This take"}
            </dt>
            <dd className="contents">
              <BandStrip shares={likeness[side]} />
              <span className="col-span-2 text-small text-stone sm:col-span-1">
                {exampleWords(
                  likeness[side],
                  side === "example" ? likeness.wanted_move : likeness.move,
                )}
              </span>
            </dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
