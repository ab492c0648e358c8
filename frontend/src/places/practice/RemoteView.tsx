import type { SessionDetail, TakeNote } from "../../api/practice";
import { useSessionChange } from "../../api/practice";
import { useKeys } from "../../keys/useKeys";
import { Button } from "../../ui/Button";
import { useWholeScreen } from "../../ui/wholeScreen";
import { lastFilmed } from "./lastFilmed";
import { NoteBar } from "./NoteBar";
import { RunnerFace } from "./RunnerFace";
import { RunnerFoot } from "./RunnerFoot";
import { useAwake } from "./useAwake";
import { useReady } from "./useReady";
import { useRemote } from "./useRemote";

type Props = { detail: SessionDetail; onStop: () => void; onRunHere: () => void };

/** The runner of another screen, in step with it: shown here too, and steered from here. */
export function RemoteView({ detail, onStop, onRunHere }: Props) {
  useWholeScreen();
  const { runner, by } = useRemote(detail);
  const { slates } = useReady(detail);
  const change = useSessionChange(detail.session.id);
  const step = runner?.step ?? null;
  const take = step ? detail.session.takes[step.position] : undefined;
  const noted = lastFilmed(detail, step);
  const note = (part: TakeNote) =>
    noted && change.mutate({ act: "note", position: noted.position, note: part });
  const toggle = () => (runner?.running ? runner.pause() : runner?.go());
  useAwake(Boolean(runner?.running));
  useKeys(
    {
      "Pause, go on": { " ": toggle, Enter: toggle },
      "Repeat this take": { ArrowLeft: () => runner?.repeat() },
      "Skip this take": { ArrowRight: () => runner?.skip() },
      "Take a skip or repeat back": { z: () => runner?.undo() },
      "Show it here no more": { Escape: onStop },
    },
    { first: true },
  );
  if (!runner) {
    return (
      <div className="mx-auto max-w-xl space-y-4 px-4 py-12 text-center">
        <p className="title text-title">The screen that ran this session does not answer.</p>
        <p className="text-stone">
          Its runner goes on by itself, if it can. Wait for it, or run the session here.
        </p>
        <Button look="main" onClick={onRunHere}>
          Run it here
        </Button>
      </div>
    );
  }
  return (
    <div
      className="relative flex min-h-[calc(100dvh-var(--trail))] flex-col bg-paper"
      data-testid="remote"
      data-step={step?.kind ?? "done"}
      data-position={step?.position ?? -1}
      data-left={runner.left.toFixed(2)}
    >
      {step && take ? (
        <RunnerFace
          detail={detail}
          step={step}
          take={take}
          runner={runner}
          {...(slates[step.position] && { slate: slates[step.position] })}
        />
      ) : (
        <p className="title m-auto text-figure-large">All done. Rest.</p>
      )}
      {noted && step?.kind !== "roll" && step?.kind !== "slate" && (
        <NoteBar take={noted} onNote={note} />
      )}
      <p className="px-4 text-center text-note text-stone" role="status">
        In step with {by}.{" "}
        <button type="button" className="min-h-[32px] underline" onClick={onRunHere}>
          Run it here instead
        </button>
      </p>
      <RunnerFoot runner={runner} onToggle={toggle} onStop={onStop} />
    </div>
  );
}
