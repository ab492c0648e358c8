import type { GapLine } from "../../api/outings";
import { Button } from "../../ui/Button";

type Props = {
  gaps: readonly GapLine[];
  onWave: (gap: GapLine, waved: boolean) => void;
  onShow?: (gap: GapLine) => void;
};

/** What the list does not have yet, each said once; what was waved away stands small below. */
export function Missing({ gaps, onWave, onShow }: Props) {
  const open = gaps.filter((gap) => !gap.waved);
  const waved = gaps.filter((gap) => gap.waved);
  return (
    <section aria-label="What is missing" className="px-4 py-4 sm:px-8">
      <h2 className="label-wide mb-1">What is missing</h2>
      {open.length === 0 && <p className="text-stone">Nothing. It will cut together.</p>}
      <ul>
        {open.map((gap) => (
          <li
            key={gap.key}
            className="flex flex-wrap items-baseline gap-x-3 border-b border-line py-1.5"
          >
            <b className="font-semibold">{gap.text}</b>
            <span className="text-note text-stone">{gap.why}</span>
            <span className="ml-auto flex gap-1">
              {onShow && gap.shots.length > 0 && (
                <Button look="bare" onClick={() => onShow(gap)}>
                  Show it
                </Button>
              )}
              <Button look="bare" onClick={() => onWave(gap, true)}>
                Let it be
              </Button>
            </span>
          </li>
        ))}
      </ul>
      {waved.length > 0 && (
        <p className="mt-2 text-small text-stone">
          Let be:{" "}
          {waved.map((gap) => (
            <button
              key={gap.key}
              type="button"
              className="mr-2 underline"
              onClick={() => onWave(gap, false)}
            >
              {gap.text}
            </button>
          ))}
        </p>
      )}
    </section>
  );
}
