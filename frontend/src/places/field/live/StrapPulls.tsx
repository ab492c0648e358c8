import * as format from "../../../formats";
import { useKeys } from "../../../keys/useKeys";
import { bestOf, gustOf, PULL_WORDS, PULLS } from "../../../live/pulls";
import type { Live } from "../../../live/useLive";

const TOP_GUST = 8;

/** Each pull of the strap with its gust; the one that is held now is chosen. */
export function StrapPulls({ live, target }: { live: Live; target: number }) {
  const { each: pulls, at } = live.history.pulls;
  useKeys(
    {
      "How hard the strap is pulled": Object.fromEntries(
        PULLS.map((pull, k) => [String(pull), () => live.pull(k)]),
      ),
    },
    { first: true }, // digits lead to places everywhere else
  );
  const best = bestOf(pulls);
  return (
    <section aria-label="The strap’s pull" className="border-t border-line px-4 py-3 sm:px-8">
      <p className="text-note text-stone">
        Choose how hard you pull, hold for a few seconds, then the next.
        {best !== null &&
          ` Steadiest until now: ${PULLS[best] ?? ""}, at ${gustWords(pulls[best])}.`}
      </p>
      <ol className="mt-2 flex items-end gap-1">
        {PULLS.map((pull, k) => {
          const gust = gustOf(pulls[k] ?? { power: 0, seconds: 0 });
          const high = gust === null ? 0 : Math.max(3, (90 * gust) / TOP_GUST);
          return (
            <li key={pull} className="flex-1 text-center">
              <button
                type="button"
                aria-pressed={at === k}
                aria-label={`Pull ${pull}, ${PULL_WORDS[pull]}`}
                onClick={() => live.pull(k)}
                className={`flex min-h-[130px] w-full flex-col justify-end border ${at === k ? "border-ink" : "border-line"}`}
              >
                <span className="text-note">
                  {gust === null ? "–" : format.gust(gust)}
                  {best === k && <b className="block">steadiest</b>}
                </span>
                <i
                  className={`block w-full ${gust !== null && gust > target ? "bg-ridge-4" : "bg-lichen"}`}
                  style={{ height: high }}
                />
                <span className="figure-narrow block text-large">{pull}</span>
              </button>
            </li>
          );
        })}
      </ol>
    </section>
  );
}

function gustWords(pull: { power: number; seconds: number } | undefined): string {
  return format.gust(pull ? gustOf(pull) : null);
}
