import { Pause, Play, Repeat, SkipForward, Square, Volume2, VolumeX } from "lucide-react";
import { useState, type ReactNode } from "react";
import type { Drill, SessionDetail, SessionTake, TakeNote } from "../../api/practice";
import { useSessionChange, useSessionUnsent } from "../../api/practice";
import { Key } from "../../keys/Key";
import { Button } from "../../ui/Button";
import { useKeys } from "../../keys/useKeys";
import { Checks } from "./Checks";
import { NoteBar } from "./NoteBar";
import { RunnerBody } from "./RunnerBody";
import { clockWords, secondsLeft, type Step } from "./steps";
import { speedOf, useRunner, type Runner } from "./useRunner";

const LOUD = 0.8;

type Props = { detail: SessionDetail; onStop: () => void };

/** A session run hands-free: read from three metres, one key or one tap for each thing. */
export function RunnerView({ detail, onStop }: Props) {
  const [volume, setVolume] = useState(LOUD);
  const runner = useRunner(detail, volume, speedOf(location.search));
  const change = useSessionChange(detail.session.id);
  const unsent = useSessionUnsent(detail.session.id);
  const { step } = runner;
  const take = step ? detail.session.takes[step.position] : undefined;
  const noted = lastFilmed(detail, step);
  const note = (part: TakeNote) =>
    noted && change.mutate({ act: "note", position: noted.position, note: part });
  const toggle = () => (runner.running ? runner.pause() : runner.go());
  const mute = () => setVolume((now) => (now === 0 ? LOUD : 0));
  useKeys(
    {
      "Pause, go on": { " ": toggle, Enter: toggle },
      "Repeat this take": { ArrowLeft: runner.repeat, PageUp: runner.repeat },
      "Skip this take": { ArrowRight: runner.skip, PageDown: runner.skip },
      "Felt good, felt bad": {
        g: () => note({ felt: "good" }),
        b: () => note({ felt: "bad" }),
      },
      "How tired": Object.fromEntries(
        [1, 2, 3, 4, 5].map((n) => [String(n), () => note({ fatigue: n })]),
      ),
      Mute: { m: mute },
      Stop: { Escape: onStop },
    },
    { first: true },
  );
  return (
    <div
      className="flex min-h-[calc(100vh-54px)] flex-col bg-paper"
      data-testid="runner"
      data-step={step?.kind ?? "done"}
      data-position={step?.position ?? -1}
      data-cues={JSON.stringify(runner.sound.log.slice(-40))}
    >
      {step && take ? (
        <Face detail={detail} step={step} take={take} runner={runner} />
      ) : (
        <div className="m-auto space-y-6 text-center">
          <p className="title text-figure-large">All done. Rest.</p>
          <Button look="main" onClick={onStop}>
            Back to the session <Key>Esc</Key>
          </Button>
        </div>
      )}
      {noted && step?.kind !== "roll" && step?.kind !== "slate" && (
        <NoteBar take={noted} onNote={note} />
      )}
      <p role="status" className="px-4 text-center text-note text-ember-deep">
        {unsent &&
          "Ridgewind does not answer. Go on: what you note is kept here and sent when it runs again."}
      </p>
      <footer className="sticky bottom-0 z-10 flex flex-wrap items-center justify-center gap-2 border-t border-line bg-paper px-4 py-2">
        <Act
          words={
            runner.running
              ? "Pause"
              : runner.elapsed > 0 || runner.sound.log.length
                ? "Go on"
                : "Start"
          }
          hint="Space"
          main
          onClick={toggle}
        >
          {runner.running ? <Pause size={20} /> : <Play size={20} />}
        </Act>
        <Act words="Repeat" hint="←" onClick={runner.repeat}>
          <Repeat size={20} />
        </Act>
        <Act words="Skip" hint="→" onClick={runner.skip}>
          <SkipForward size={20} />
        </Act>
        <Act words="Stop" hint="Esc" onClick={onStop}>
          <Square size={20} />
        </Act>
        <Act words={volume === 0 ? "Sound on" : "Mute"} hint="M" onClick={mute}>
          {volume === 0 ? <VolumeX size={20} /> : <Volume2 size={20} />}
        </Act>
        <input
          type="range"
          aria-label="Volume"
          min={0}
          max={1}
          step={0.05}
          value={volume}
          onChange={(event) => setVolume(Number(event.target.value))}
          className="w-28 accent-[var(--ridge-4)]"
        />
      </footer>
    </div>
  );
}

/** The take that was filmed last, for the notes. */
function lastFilmed(detail: SessionDetail, step: Step | null): SessionTake | undefined {
  const until = step ? step.position : detail.session.takes.length - 1;
  return detail.session.takes.findLast((take) => take.position <= until && take.state === "filmed");
}

type FaceProps = { detail: SessionDetail; step: Step; take: SessionTake; runner: Runner };

const CUE = {
  "warm-up": "Warm up",
  "set-up": "Set up",
  slate: "Film this code",
  count: "Get ready",
  roll: "Roll",
  rest: "Rest",
} as const;

function Face({ detail, step, take, runner }: FaceProps) {
  const drill = detail.drills[take.drill_key];
  const variation = drill?.variations.find((one) => one.key === take.variation_key);
  const left = step.seconds - runner.elapsed;
  const count = detail.session.takes.length;
  const total = secondsLeft(runner.steps, runner.steps.indexOf(step), runner.elapsed);
  if (step.kind === "slate") {
    return (
      <div className="flex flex-1 flex-col items-center justify-center bg-[#fff] p-2 text-[#000]">
        <img
          src={`/api/sessions/${detail.session.id}/slates/${take.position}.svg`}
          alt={`Code of take ${take.position + 1}`}
          className="h-[74vh] max-w-full"
        />
        <p className="text-large font-semibold">
          {!runner.running && "Paused. "}Take {take.position + 1}: {drill?.name},{" "}
          {variation?.name.toLowerCase()}
        </p>
      </div>
    );
  }
  return (
    <div
      className={`relative flex flex-1 flex-col justify-center gap-3 px-4 py-3 text-center sm:px-10 ${step.kind === "roll" ? "bg-lichen" : ""}`}
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
        {runner.running ? CUE[step.kind] : runner.interrupted ? "Sound taken away" : "Paused"}
      </p>
      <p
        className={`figure-huge ${step.kind === "set-up" ? "text-far-title" : "text-far-count"}`}
        data-testid="count"
      >
        {step.kind === "roll" || step.kind === "count"
          ? Math.max(1, Math.ceil(left))
          : clockWords(left)}
      </p>
      {step.kind === "roll" && <Sweep share={runner.elapsed / step.seconds} tempo={drill?.tempo} />}
      {step.kind === "set-up" && drill ? (
        <ol className="mx-auto max-w-[760px] list-decimal pl-6 text-left text-heading">
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
    <div className="mx-auto w-full max-w-[900px]" aria-hidden="true">
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

type ActProps = {
  words: string;
  hint: string;
  main?: boolean;
  onClick: () => void;
  children: ReactNode;
};

function Act({ words, hint, main = false, onClick, children }: ActProps) {
  return (
    <button
      type="button"
      onClick={onClick}
      className={`rounded inline-flex items-center gap-2 border px-4 py-3 text-lead font-semibold ${main ? "border-ink bg-ink text-paper" : "border-ridge-2"}`}
    >
      {children}
      {words} <Key>{hint}</Key>
    </button>
  );
}
