import type { Told } from "./filmedTakes";

const WAITING = {
  rolling: "Its film is being kept…",
  sending: "Its film is being brought in…",
  measuring: "Its film is being measured…",
} as const;

/** What came of the take before, in the rest: as large as the rest itself. */
export function TakeTold({ told }: { told: Told }) {
  if (told.at !== "told") return <p className="text-far-text text-stone">{WAITING[told.at]}</p>;
  const { result } = told;
  return (
    <div data-testid="told">
      <p
        className={`text-far-heading font-semibold ${result.passed === false || result.state === "failed" ? "text-ember-deep" : "text-lichen-deep"}`}
      >
        {result.figure}
      </p>
      {result.advice && <p className="text-far-text">{result.advice}</p>}
    </div>
  );
}
