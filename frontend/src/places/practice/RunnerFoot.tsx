import {
  Maximize,
  Pause,
  Play,
  Repeat,
  SkipForward,
  Square,
  Undo2,
  Volume2,
  VolumeX,
} from "lucide-react";
import type { ReactNode } from "react";
import { Key } from "../../keys/Key";
import type { Runner } from "./useRunner";

type Props = {
  runner: Runner;
  /** Of the sounds that this screen makes; left out where it makes none. */
  volume?: number;
  onVolume?: (volume: number) => void;
  onToggle: () => void;
  onMute?: () => void;
  onFullScreen?: () => void;
  onStop: () => void;
};

/** What can be done at any time, one tap each. */
export function RunnerFoot({
  runner,
  volume,
  onVolume,
  onToggle,
  onMute,
  onFullScreen,
  onStop,
}: Props) {
  return (
    <footer className="sticky bottom-0 z-(--layer-raised) flex flex-wrap items-center justify-center gap-1 border-t border-line bg-paper px-4 py-2 sm:gap-2">
      <Act
        words={runner.running ? "Pause" : runner.elapsed > 0 || runner.begun ? "Go on" : "Start"}
        hint="Space"
        main
        onClick={onToggle}
      >
        {runner.running ? <Pause size={20} /> : <Play size={20} />}
      </Act>
      <Act words="Repeat" hint="←" onClick={runner.repeat}>
        <Repeat size={20} />
      </Act>
      <Act words="Skip" hint="→" onClick={runner.skip}>
        <SkipForward size={20} />
      </Act>
      {runner.canUndo && (
        <Act words="Undo" hint="Z" onClick={runner.undo}>
          <Undo2 size={20} />
        </Act>
      )}
      {onFullScreen && (
        <span className="hidden sm:block">
          <Act words="Full screen" hint="F" onClick={onFullScreen}>
            <Maximize size={20} />
          </Act>
        </span>
      )}
      <Act words="Stop" hint="Esc" onClick={onStop}>
        <Square size={20} />
      </Act>
      {volume !== undefined && onMute && (
        <>
          <Act words={volume === 0 ? "Sound on" : "Mute"} hint="M" onClick={onMute}>
            {volume === 0 ? <VolumeX size={20} /> : <Volume2 size={20} />}
          </Act>
          <input
            type="range"
            aria-label="Volume"
            min={0}
            max={1}
            step={0.05}
            value={volume}
            onChange={(event) => onVolume?.(Number(event.target.value))}
            className="hidden w-28 sm:block accent-[var(--ridge-4)]"
          />
        </>
      )}
    </footer>
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
      className={`rounded inline-flex min-h-[50px] min-w-[48px] items-center justify-center gap-2 border px-3 py-2 sm:px-4 text-lead font-semibold ${main ? "border-ink bg-ink text-paper" : "border-ridge-2"}`}
    >
      {children}
      <span className={main ? "" : "sr-only sm:not-sr-only"}>{words}</span> <Key>{hint}</Key>
    </button>
  );
}
