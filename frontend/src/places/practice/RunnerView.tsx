import { useEffect, useEffectEvent, useState } from "react";
import type { Drill, SessionDetail, TakeNote } from "../../api/practice";
import { useSessionChange, useSessionUnsent } from "../../api/practice";
import { Key } from "../../keys/Key";
import { Button } from "../../ui/Button";
import { useKeys } from "../../keys/useKeys";
import { useWholeScreen } from "../../ui/wholeScreen";
import { CameraCorner } from "./CameraCorner";
import { saidOf, type CameraChoice, type MeterChoice, type SayChoice } from "./choices";
import { lastFilmed } from "./lastFilmed";
import { NoteBar } from "./NoteBar";
import { RunnerFace } from "./RunnerFace";
import { RunnerFoot } from "./RunnerFoot";
import { RunnerMeter } from "./RunnerMeter";
import { speak } from "./sound";
import { useHolder } from "./useHolder";
import { useReady } from "./useReady";
import { useFilmedTakes } from "./useFilmedTakes";
import { speedOf, useRunner } from "./useRunner";

const LOUD = 0.8;

type Props = {
  detail: SessionDetail;
  camera: CameraChoice;
  say: SayChoice;
  meter: MeterChoice;
  onStop: () => void;
};

/** A session run hands-free: read from three metres, one key or one tap for each thing. */
export function RunnerView({ detail, camera, say, meter, onStop }: Props) {
  useWholeScreen();
  const [volume, setVolume] = useState(LOUD);
  const { slates, whole } = useReady(detail);
  const filming = useFilmedTakes(detail.session.id, camera);
  const speed = speedOf(location.search);
  const withSlates = camera === "none" || camera === "folder";
  const runner = useRunner(detail, filming.filmed, {
    volume,
    speed,
    slates: withSlates,
    comes: camera === "folder",
  });
  const { takenBy, takeBack } = useHolder(detail.session.id, runner, {
    speed,
    slates: withSlates,
  });
  const change = useSessionChange(detail.session.id);
  const unsent = useSessionUnsent(detail.session.id);
  const { step } = runner;
  const take = step ? detail.session.takes[step.position] : undefined;
  const drill = take && detail.drills[take.drill_key];
  const noted = lastFilmed(detail, step);
  const note = (part: TakeNote) =>
    noted && change.mutate({ act: "note", position: noted.position, note: part });
  const told = step ? filming.told.get(step.position) : undefined;
  const result = told?.at === "told" ? told.result : null;
  const tell = useEffectEvent(() => {
    // Spoken in the rest alone: later it would fall into the next take.
    if (result && step?.kind === "rest") speak(saidOf(result, say), volume);
  });
  useEffect(() => {
    if (result) tell();
  }, [result]);
  const fullScreen = () =>
    void (
      document.fullscreenElement
        ? document.exitFullscreen()
        : document.documentElement.requestFullscreen()
    ).catch(() => undefined); // refused: the window stays as it is
  const toggle = () => {
    if (takenBy) takeBack();
    return runner.running ? runner.pause() : runner.go();
  };
  const mute = () => setVolume((now) => (now === 0 ? LOUD : 0));
  useKeys(
    {
      "Pause, go on": { " ": toggle, Enter: toggle },
      "Repeat this take": { ArrowLeft: runner.repeat, PageUp: runner.repeat },
      "Take a skip or repeat back": { z: runner.undo },
      "Skip this take": { ArrowRight: runner.skip, PageDown: runner.skip },
      "Felt good, felt bad": {
        g: () => note({ felt: "good" }),
        b: () => note({ felt: "bad" }),
      },
      "How tired": Object.fromEntries(
        [1, 2, 3, 4, 5].map((n) => [String(n), () => note({ fatigue: n })]),
      ),
      "Wind, one stronger": { w: () => note({ wind: nextOf(noted?.wind, 0, 3) }) },
      "Strap, one harder": { s: () => note({ tension: nextOf(noted?.tension, 1, 5) }) },
      Mute: { m: mute },
      "Full screen": { f: fullScreen },
      Stop: { Escape: onStop },
    },
    { first: true },
  );
  return (
    <div
      className="relative flex min-h-[calc(100dvh-var(--trail))] flex-col bg-paper"
      data-testid="runner"
      data-step={step?.kind ?? "done"}
      data-position={step?.position ?? -1}
      data-ready={whole}
      data-cues={JSON.stringify(runner.cues.slice(-40))}
    >
      {step && take ? (
        <RunnerFace
          detail={detail}
          step={step}
          take={take}
          runner={runner}
          told={told}
          slate={slates[step.position]}
        />
      ) : (
        <div className="m-auto space-y-6 text-center">
          <p className="title text-figure-large">All done. Rest.</p>
          <p className="text-far-note text-stone">
            {camera === "none"
              ? "Next: bring its films in; they find their takes by slate and time."
              : "Its films are here: settle them side by side."}
          </p>
          <Button look="main" onClick={onStop}>
            Back to the session <Key>Esc</Key>
          </Button>
        </div>
      )}
      {meter !== "none" && drill && isHold(drill) && (
        <RunnerMeter
          source={meter}
          target={drill.target}
          on={runner.running && (step?.kind === "count" || step?.kind === "roll")}
          sound={volume > 0 && step?.kind === "roll"}
        />
      )}
      {noted && step?.kind !== "roll" && step?.kind !== "slate" && (
        <NoteBar take={noted} onNote={note} />
      )}
      <CameraCorner filming={filming} rolling={runner.running && step?.kind === "roll"} />
      <p role="status" className="px-4 text-center text-note text-ember-deep">
        {takenBy && `It runs on ${takenBy} now, and is paused here. Going on here takes it back. `}
        {unsent &&
          "Ridgewind does not answer. Go on: what you note is kept here and sent when it runs again."}
      </p>
      <RunnerFoot
        runner={runner}
        volume={volume}
        onVolume={setVolume}
        onToggle={toggle}
        onMute={mute}
        onFullScreen={fullScreen}
        onStop={onStop}
      />
    </div>
  );
}

/** Whether the camera is to stand still in it, so that all of its motion is shake. */
const isHold = (drill: Drill) => drill.tempo === "none" || drill.tempo === "breath";

/** The next of some steps, and round again. */
const nextOf = (now: number | null | undefined, least: number, most: number) =>
  now === null || now === undefined || now >= most ? least : now + 1;
