import { useEffect, useState } from "react";
import { useChangeWeights, useWeights, type Weights } from "../../api/settings";
import { Button } from "../../ui/Button";
import { FaultView } from "../../ui/FaultView";
import { ClearedSection } from "./ClearedSection";
import { DeletedSection } from "./DeletedSection";
import { KeptSection } from "./KeptSection";
import { KeysSection } from "./KeysSection";
import { PhonesSection } from "./PhonesSection";
import { SpaceSection } from "./SpaceSection";
import { WatchedSection } from "./WatchedSection";
import { WorkersSection } from "./WorkersSection";

/** A slider that rests so long is where it was meant to be. */
const REST_MS = 250;

const PARTS: { name: keyof Weights; words: string; means: string }[] = [
  {
    name: "seconds",
    words: "Seconds",
    means: "A point for a whole take cut away, and one for each halving of its speed.",
  },
  { name: "crop", words: "Crop", means: "A point for every 5 % of the long side." },
  {
    name: "sharpness",
    words: "Sharpness",
    means: "A point for every half doubling of enlargement, and for every 0.15 % of smear.",
  },
  { name: "sound", words: "Sound", means: "Half a point where sound is lost." },
  { name: "desk", words: "Time at the desk", means: "A point for every five minutes." },
];

/** Settings of the whole library. */
export function SettingsPage() {
  useEffect(() => {
    document.title = "Settings · Ridgewind";
  }, []);
  return (
    <>
      <header className="border-b border-line px-4 pt-4 pb-3 sm:px-8">
        <h1 className="title text-title leading-tight">Settings</h1>
      </header>
      <CostSection />
      <PhonesSection />
      <WorkersSection />
      <WatchedSection />
      <KeysSection />
      <KeptSection />
      <SpaceSection />
      <DeletedSection />
      <ClearedSection />
    </>
  );
}

function CostSection() {
  const found = useWeights();
  const change = useChangeWeights();
  const [dragged, setDragged] = useState<Weights | null>(null);
  const { mutate } = change;
  useEffect(() => {
    if (!dragged) return;
    const later = setTimeout(() => mutate(dragged, { onSettled: () => setDragged(null) }), REST_MS);
    return () => clearTimeout(later);
  }, [dragged, mutate]);
  if (found.isLoadingError) return <FaultView error={found.error} />;
  if (!found.data) return <p className="p-8 text-stone">Reading the settings…</p>;
  const { usual } = found.data;
  const weights = dragged ?? found.data.weights;
  const moved = PARTS.some((part) => weights[part.name] !== usual[part.name]);
  return (
    <section aria-label="What a remedy costs" className="border-b border-line px-4 py-4 sm:px-8">
      <header className="flex flex-wrap items-baseline gap-x-4">
        <h2 className="title text-heading">What a remedy costs</h2>
        <p className="text-note text-stone">
          The cheapest remedy that passes is the verdict. Weigh what matters to you; 1 is usual.
        </p>
        {moved && (
          <span className="ml-auto">
            <Button look="bare" onClick={() => setDragged(usual)}>
              Back to usual
            </Button>
          </span>
        )}
      </header>
      {change.error && <FaultView error={change.error} />}
      <div className="mt-2 grid max-w-[900px] gap-y-2">
        {PARTS.map((part) => (
          <label
            key={part.name}
            className="grid grid-cols-[minmax(0,1fr)_40px] items-center gap-x-4 sm:grid-cols-[140px_220px_40px_minmax(0,1fr)]"
          >
            <span className="font-semibold">{part.words}</span>
            <input
              type="range"
              min={0}
              max={5}
              step={0.25}
              value={weights[part.name]}
              onChange={(event) =>
                setDragged({ ...weights, [part.name]: Number(event.target.value) })
              }
              className="order-last col-span-2 accent-ridge-4 sm:order-none sm:col-span-1"
            />
            <output className="figure-narrow text-right text-large">
              {weights[part.name].toFixed(2)}
            </output>
            <span className="hidden text-note text-stone sm:block">{part.means}</span>
          </label>
        ))}
      </div>
    </section>
  );
}
