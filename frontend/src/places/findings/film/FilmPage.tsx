import { useEffect } from "react";
import { Link } from "react-router";
import { useBecameFilm, type FilmLine } from "../../../api/joined";
import * as format from "../../../formats";
import { FaultView } from "../../../ui/FaultView";
import { FindingsTabs } from "../FindingsTabs";
import { gustWords, share } from "./words";

const TOP_GUST = 8;

/** Which techniques become film: what a desk used of their takes, and how calm that was. */
export function FilmPage() {
  const found = useBecameFilm();
  useEffect(() => {
    document.title = "Became film · Ridgewind";
  }, []);
  if (found.isLoadingError) return <FaultView error={found.error} />;
  const lines = found.data?.lines;
  const most_s = Math.max(...(lines ?? []).map((one) => one.seconds), 1);
  return (
    <>
      <FindingsTabs />
      <header className="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-line px-4 pt-4 pb-3 sm:px-8">
        <h1 className="title text-title leading-tight">Became film</h1>
        {lines && lines.length > 0 && (
          <p className="text-stone">
            {format.seconds(lines.reduce((sum, one) => sum + one.seconds, 0))} on screen, of{" "}
            {format.takes(lines.reduce((sum, one) => sum + one.used, 0))}
          </p>
        )}
      </header>
      {lines?.length === 0 && (
        <p className="max-w-[70ch] p-4 sm:p-8">
          Nothing came back from a desk yet. Join the takes of an outing in{" "}
          <Link to="/sequence" className="font-semibold underline">
            Sequence
          </Link>
          , take its time line along, and bring it back once it is cut: here stands then which ways
          of holding and moving earn their place in a film.
        </p>
      )}
      {lines && lines.length > 0 && (
        <>
          <ul aria-label="Techniques">
            {lines.map((one) => (
              <Row key={`${one.drill}/${one.name}`} one={one} most_s={most_s} />
            ))}
          </ul>
          <p className="max-w-[70ch] px-4 py-4 text-small text-stone sm:px-8">
            The bar is time on screen. On the scale of gust the line is what was used, the dot the
            usual take: where the line stands far left of the dot, only the calm parts were of use.
          </p>
        </>
      )}
    </>
  );
}

function Row({ one, most_s }: { one: FilmLine; most_s: number }) {
  const name = <b className="font-semibold">{one.name}</b>;
  return (
    <li className="grid items-center gap-x-6 gap-y-1 border-b border-line px-4 py-2.5 sm:px-8 md:grid-cols-[240px_minmax(0,1fr)_200px]">
      <p className="leading-tight">
        {one.drill_key === null ? (
          name
        ) : (
          <Link to={`/plan/drills/${one.drill_key}`} className="hover:underline">
            {name}
          </Link>
        )}{" "}
        <span className="text-small text-stone">{one.drill}</span>
      </p>
      <div>
        <div className="h-4 bg-paper">
          <div
            className="h-full border-r-2 border-lichen-deep bg-lichen"
            style={{ width: `${(100 * one.seconds) / most_s}%` }}
          />
        </div>
        <p className="text-small text-stone">
          {one.used === 0
            ? `none of ${format.takes(one.takes)}`
            : `${one.used} of ${format.takes(one.takes)} (${share(one)}), ${format.seconds(one.seconds)}`}
        </p>
      </div>
      <div>
        <div aria-hidden="true" className="relative h-4 bg-paper">
          {[2, 4, 6].map((gust) => (
            <i key={gust} className="absolute inset-y-0 w-px bg-line" style={{ left: at(gust) }} />
          ))}
          <i
            className="absolute top-1/2 size-2 -translate-1/2 rounded-full bg-ridge-3"
            style={{ left: at(one.usual) }}
          />
          {one.gust !== null && (
            <i
              className="absolute inset-y-0 w-[3px] -translate-x-1/2 bg-ridge-5"
              style={{ left: at(one.gust) }}
            />
          )}
        </div>
        <p className="text-small text-stone">{gustWords(one)}</p>
      </div>
    </li>
  );
}

const at = (gust: number) => `${(100 * Math.min(TOP_GUST, gust)) / TOP_GUST}%`;
