import { Link } from "react-router";
import { useTakes } from "../../api/takes";
import { SmallRidge } from "../../charts/SmallRidge";
import * as format from "../../formats";

const SHOWN = 6;

/** What came of the newest takes. */
export function LastTakes() {
  const found = useTakes({ sort: "imported", descending: true });
  const takes = found.data?.pages[0]?.takes.slice(0, SHOWN) ?? [];
  if (takes.length === 0) return null;
  return (
    <section aria-label="Last results" className="px-4 py-3 sm:px-8">
      <h2 className="title text-heading">Last results</h2>
      <ul>
        {takes.map((take) => (
          <li
            key={take.id}
            className="relative flex min-h-[56px] items-center gap-3 border-b border-line"
          >
            <SmallRidge encoded={take.ridge} target={take.target} width={84} height={32} />
            <Link
              to={`/takes/${take.id}`}
              className="min-w-0 flex-1 truncate font-semibold after:absolute after:inset-0"
            >
              {take.name}
              <span className="block truncate text-note font-normal text-stone">
                {take.remedy
                  ? format.REMEDY_WORDS[take.remedy]
                  : take.state === "done"
                    ? "No verdict"
                    : take.state === "failed"
                      ? "Could not be measured"
                      : "Being measured"}
              </span>
            </Link>
            <span className="figure-narrow text-title">{format.gust(take.gust)}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
