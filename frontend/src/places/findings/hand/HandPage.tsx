import { useDeferredValue, useEffect } from "react";
import { useHand, type HandAsked } from "../../../api/hand";
import * as format from "../../../formats";
import { useKeys } from "../../../keys/useKeys";
import { FaultView } from "../../../ui/FaultView";
import { Segments } from "../../../ui/Segments";
import { Select } from "../../../ui/Select";
import { FirstLook } from "../../plan/door";
import { useRemembered } from "../../../ui/useRemembered";
import { FindingsTabs } from "../FindingsTabs";
import { lensBy, LensSlider } from "../LensSlider";
import { HandSpectrum } from "./HandSpectrum";
import { LensPrediction } from "./LensPrediction";
import { ProfileStrata } from "./ProfileStrata";

const FIRST: HandAsked = { technique: null, focal_eq_mm: 50, rate: 1, screen: "laptop" };
const SCREENS = [
  { value: "phone", words: "Phone" },
  { value: "laptop", words: "Laptop" },
  { value: "cinema", words: "Cinema" },
] as const;
const RATES = [
  { value: "1", words: "As filmed" },
  { value: "0.8", words: "Slowed to 80 %" },
  { value: "0.5", words: "Slowed to 50 %" },
  { value: "0.4", words: "Slowed to 40 %" },
  { value: "0.25", words: "Slowed to 25 %" },
] as const;
/** The shooter's own hand: how it turns, and what it would read through a lens not yet carried. */
export function HandPage() {
  const [asked, setAsked] = useRemembered<HandAsked>("hand", FIRST);
  const found = useHand(useDeferredValue(asked));
  const answer = found.data;
  const put = (part: Partial<HandAsked>) => setAsked({ ...asked, ...part });
  const lens = (by: number) => put({ focal_eq_mm: lensBy(asked.focal_eq_mm, by) });
  useEffect(() => {
    document.title = "Your hand · Ridgewind";
  }, []);
  useKeys({
    "A shorter or a longer lens": { ArrowLeft: () => lens(-2), ArrowRight: () => lens(2) },
  });
  if (found.isLoadingError) return <FaultView error={found.error} />;
  return (
    <>
      <FindingsTabs />
      <header className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-line px-4 pt-4 pb-3 sm:px-8">
        <h1 className="title text-title leading-tight">Your hand</h1>
        <p className="text-stone">
          How it turns, and what it would read through a lens that you have not carried yet.
        </p>
      </header>
      {answer && answer.techniques.length === 0 && <FirstLook />}
      {answer && answer.techniques.length > 0 && (
        <>
          <div className="flex flex-wrap items-center gap-x-5 gap-y-3 border-b border-line px-4 py-3 sm:px-8">
            <Select
              label="Technique"
              value={answer.chosen ?? ""}
              options={answer.techniques.map((one) => ({
                value: one.key,
                words: `${one.name} · ${one.drill} · ${format.takes(one.takes)}`,
              }))}
              onChange={(technique) => put({ technique })}
            />
            <LensSlider mm={asked.focal_eq_mm} onChange={(focal_eq_mm) => put({ focal_eq_mm })} />
            <Select
              label="Played"
              value={String(asked.rate) as (typeof RATES)[number]["value"]}
              options={RATES}
              onChange={(rate) => put({ rate: Number(rate) })}
            />
            <Segments
              label="Screen"
              value={asked.screen}
              options={SCREENS}
              onChange={(screen) => put({ screen })}
            />
          </div>
          <div className="grid grid-cols-1 gap-x-10 gap-y-6 px-4 py-4 sm:px-8 xl:grid-cols-2">
            <LensPrediction answer={answer} asked={asked} />
            <HandSpectrum answer={answer} />
          </div>
          <ProfileStrata onTechnique={(technique) => put({ technique })} chosen={answer.chosen} />
          <p className="px-4 pb-6 text-small text-stone sm:px-8">
            A prediction from your own takes, not a measurement. What shakes faster than half the
            frame rate of its takes is not in it.
          </p>
        </>
      )}
    </>
  );
}
