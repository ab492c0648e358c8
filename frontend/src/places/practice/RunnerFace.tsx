import type { Drill, SessionDetail, SessionTake } from "../../api/practice";
import { Checks } from "./Checks";
import type { Told } from "./filmedTakes";
import { RunnerBody } from "./RunnerBody";
import { clockWords, CUE_WORDS, secondsLeft, type Step } from "./steps";
import { TakeTold } from "./TakeTold";
import type { Runner } from "./useRunner";

type Props = {
  detail: SessionDetail;
  step: Step;
  take: SessionTake;
  runner: Runner;
  told?: Told;
  slate?: string;
};

/** What is to be done now, to be read from three metres. */
export function RunnerFace({ detail, step, take, runner, told, slate }: Props) {
  const drill = detail.drills[take.drill_key];
  const variation = drill?.variations.find((one) => one.key === take.variation_key);
  const { left } = runner;
  const count = detail.session.takes.length;
  const total = secondsLeft(runner.steps, runner.steps.indexOf(step), runner.elapsed);
  if (step.kind === "slate") {
    return (
      <div className="flex flex-1 flex-col items-center justify-center bg-[#fff] p-2 text-[#000]">
        <img
          src={slate ?? `/api/sessions/${detail.session.id}/slates/${take.position}.svg`}
          alt={`Code of take ${take.position + 1}`}
          className="h-[74vh] max-w-full"
        />
        <p className="text-large font-semibold">
          {!runner.running && "Paused. "}Screen at its brightest. Take {take.position + 1}:{" "}
          {drill?.name}, {variation?.name.toLowerCase()}
        </p>
      </div>
    );
  }
  return (
    <div
      className={`relative flex flex-1 flex-col justify-center gap-2 px-4 py-2 text-center sm:gap-3 sm:py-3 sm:px-10 ${step.kind === "roll" ? "bg-lichen" : ""}`}
    >
      {step.kind !== "warm-up" && <RunnerBody take={take} setUp={step.kind === "set-up"} />}
      <p className="text-far-heading font-semibold">
        {step.kind === "warm-up" ? "Shoulders, wrists, knees" : drill?.name}
        {step.kind !== "warm-up" && step.kind !== "set-up" && (
          <span className="text-stone"> · {variation?.name.toLowerCase()}</span>
        )}
      </p>
      <p
        className={`title leading-none ${step.kind === "set-up" ? "text-far-heading" : "text-far-title"}`}
        aria-live="assertive"
      >
        {runner.running ? CUE_WORDS[step.kind] : runner.interrupted ? "Sound taken away" : "Paused"}
      </p>
      {step.kind === "rest" && told && <TakeTold told={told} />}
      <p
        className={`figure-huge ${step.kind === "set-up" || told ? "text-far-title" : "text-far-count"}`}
        data-testid="count"
      >
        {step.kind === "roll" || step.kind === "count"
          ? Math.max(1, Math.ceil(left))
          : clockWords(left)}
      </p>
      {step.kind === "roll" && <Sweep share={runner.elapsed / step.seconds} tempo={drill?.tempo} />}
      {step.kind === "set-up" && drill ? (
        <ol className="mx-auto max-w-[760px] list-decimal pl-6 text-left text-lead sm:text-heading">
          {drill.set_up.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ol>
      ) : (
        <p className="text-far-text">{said(step, drill, variation?.how)}</p>
      )}
      {step.kind === "set-up" && drill && (
        <Checks drill={drill} checks={detail.checks[take.drill_key] ?? []} />
      )}
      <p className="text-far-note text-stone">
        Take {take.position + 1} of {count} · {clockWords(total)} to go
      </p>
    </div>
  );
}

function said(step: Step, drill: Drill | undefined, how: string | undefined): string {
  if (step.kind === "warm-up")
    return "Circle them slowly, breathe, look around where you will move.";
  if (step.kind === "rest") return "Let the arms hang, and the strap go.";
  return how ?? drill?.move ?? "";
}

/** The pace of a timed move: start, middle and end. */
function Sweep({ share, tempo }: { share: number; tempo: Drill["tempo"] | undefined }) {
  const at = Math.min(1, Math.max(0, share)) * 100;
  return (
    <div className="mx-auto w-full max-w-[620px]" aria-hidden="true">
      <div className="relative h-4 bg-ridge-1">
        <i className="absolute inset-y-0 left-0 bg-ridge-4" style={{ width: `${at}%` }} />
        {tempo === "move" &&
          [0, 50, 100].map((mark) => (
            <i
              key={mark}
              className="absolute -inset-y-1.5 w-1 bg-ink"
              style={{ left: `calc(${mark}% - ${mark / 50}px)` }}
            />
          ))}
      </div>
      {tempo === "move" && (
        <div className="flex justify-between text-heading">
          <span>start</span>
          <span>middle</span>
          <span>end frame</span>
        </div>
      )}
    </div>
  );
}
