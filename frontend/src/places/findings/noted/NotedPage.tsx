import { scaleLinear } from "d3-scale";
import { useEffect } from "react";
import { Link } from "react-router";
import { useNoted, type FeltTechnique, type Noted } from "../../../api/progress";
import { around } from "../../../charts/around";
import { TicksAcross } from "../../../charts/Ticks";
import * as format from "../../../formats";
import { FaultView } from "../../../ui/FaultView";
import { useWidth } from "../../../ui/useWidth";
import { FindingsTabs } from "../FindingsTabs";
import { TirednessSlope } from "./TirednessSlope";
import { feelingWords, placeWords, restWords, shortFeeling, tirednessWords } from "./words";

const ROW_PX = 26;

/** What was felt against what was measured: feeling, tiredness and rest. */
export function NotedPage() {
  const found = useNoted();
  const noted = found.data;
  useEffect(() => {
    document.title = "Felt and measured · Ridgewind";
  }, []);
  if (found.isLoadingError) return <FaultView error={found.error} />;
  return (
    <>
      <FindingsTabs />
      <header className="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-line px-4 pt-4 pb-3 sm:px-8">
        <h1 className="title text-title leading-tight">Felt and measured</h1>
        <p className="text-stone">Whether your feeling can be trusted, and when to stop.</p>
      </header>
      {noted && noted.felt === 0 && noted.tired === 0 ? (
        <p className="max-w-[70ch] p-4 sm:p-8">
          Nothing is noted yet. The runner asks after each take how it felt and how tired you are:{" "}
          <Link to="/plan" className="font-semibold underline">
            plan a session
          </Link>
          , answer by one key, and file its films.
        </p>
      ) : (
        noted && <Pictures noted={noted} />
      )}
    </>
  );
}

function Pictures({ noted }: { noted: Noted }) {
  return (
    <>
      <section aria-label="Feeling" className="px-4 py-3 sm:px-8">
        <h2 className="label-wide">Your feeling</h2>
        <p className="max-w-[80ch]">{feelingWords(noted.feeling, noted.felt)}</p>
        <Felt techniques={noted.techniques} />
      </section>
      <div className="grid grid-cols-1 gap-x-10 border-t border-line lg:grid-cols-2">
        <section aria-label="Tiredness" className="min-w-0 px-4 py-3 sm:px-8">
          <h2 className="label-wide">Your tiredness</h2>
          <p className="max-w-[70ch]">{tirednessWords(noted)}</p>
          {noted.tiredness && <TirednessSlope tiredness={noted.tiredness} />}
        </section>
        <section
          aria-label="Takes and rest"
          className="min-w-0 border-t border-line px-4 py-3 sm:px-8 lg:border-t-0"
        >
          <h2 className="label-wide">Takes and rest</h2>
          <p className="max-w-[70ch]">{placeWords(noted)}</p>
          <p className="mt-2 max-w-[70ch]">{restWords(noted)}</p>
        </section>
      </div>
      <p className="px-4 pt-2 pb-6 text-small text-stone sm:px-8">
        Body gust, so that lenses compare; only takes of one technique are held against each other,
        and every session against itself. From {format.takes(noted.felt)} with a feeling and{" "}
        {noted.tired} with a tiredness.
      </p>
    </>
  );
}

/** Every technique's takes along the scale: full where it felt good, open where it felt bad. */
function Felt({ techniques }: { techniques: FeltTechnique[] }) {
  const [box, width] = useWidth<HTMLDivElement>();
  const all = techniques.flatMap((one) => [...one.good, ...one.bad]);
  const x = around(all, 8, Math.max(width - 8, 9));
  return (
    <>
      <p className="mt-2 mb-1 flex flex-wrap gap-x-4 text-small text-stone">
        <span>
          <Dot good /> felt good
        </span>
        <span>
          <Dot /> felt bad
        </span>
        <span>Steadier to the left.</span>
      </p>
      <ul>
        {techniques.map((one, index) => (
          <li
            key={one.key}
            className="grid grid-cols-1 items-center gap-x-3 border-t border-line py-0.5 md:grid-cols-[230px_minmax(0,1fr)_260px]"
          >
            <p className="truncate leading-tight">
              <b className="font-semibold">{one.name}</b>{" "}
              <span className="text-small text-stone">{one.drill}</span>
            </p>
            <div ref={index === 0 ? box : undefined}>
              <Row one={one} x={x} width={width} />
            </div>
            <p className="text-small text-stone">{shortFeeling(one.feeling)}</p>
          </li>
        ))}
      </ul>
      {width > 0 && (
        <div className="grid md:grid-cols-[230px_minmax(0,1fr)_260px]">
          <svg
            width={width}
            height="18"
            aria-hidden="true"
            className="overflow-visible md:col-start-2 md:ml-3"
          >
            <TicksAcross ticks={x.ticks(6)} x={x} y={13} />
          </svg>
        </div>
      )}
    </>
  );
}

function Dot({ good = false }: { good?: boolean }) {
  return (
    <svg width="10" height="10" aria-hidden="true" className="inline-block">
      <circle
        cx="5"
        cy="5"
        r="4"
        fill={good ? "var(--ridge-5)" : "var(--paper)"}
        stroke="var(--ridge-5)"
        strokeWidth="1.5"
      />
    </svg>
  );
}

type RowProps = { one: FeltTechnique; x: ReturnType<typeof scaleLinear<number>>; width: number };

function Row({ one, x, width }: RowProps) {
  const words = `${one.name}: ${format.takes(one.good.length)} felt good, ${one.bad.length} bad.`;
  return (
    <svg width={Math.max(width, 1)} height={ROW_PX} role="img" aria-label={words}>
      <line x1={0} x2={width} y1={ROW_PX / 2} y2={ROW_PX / 2} stroke="var(--line)" />
      {one.good.map((value, k) => (
        <circle key={`g${k}`} cx={x(value)} cy={ROW_PX / 2 + 5} r="4.5" fill="var(--ridge-5)" />
      ))}
      {one.bad.map((value, k) => (
        <circle
          key={`b${k}`}
          cx={x(value)}
          cy={ROW_PX / 2 - 5}
          r="4.5"
          fill="var(--paper)"
          stroke="var(--ridge-5)"
          strokeWidth="1.5"
        />
      ))}
    </svg>
  );
}
