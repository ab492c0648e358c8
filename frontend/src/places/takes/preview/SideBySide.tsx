import { useEffect, useRef, useState } from "react";
import type { ClipFacts } from "../../../api/client";
import type { Render, Windows } from "../../../api/decisions";
import { nearest } from "../../../charts/ridge";
import { useStill } from "../../../ui/useMedia";
import { usePlayhead, useTime } from "../one/playhead";

const APART_S = 0.08;

type Props = {
  id: number;
  clip: ClipFacts;
  render: Render | undefined;
  windows: Windows | undefined;
  children: React.ReactNode;
};

/** The clip as shot with the crop drawn, and the remedy beside it, in step. */
export function SideBySide({ id, clip, render, windows, children }: Props) {
  const after = useRef<HTMLVideoElement>(null);
  const before = useRef<HTMLVideoElement>(null);
  const playhead = usePlayhead();
  const [heard, setHeard] = useState(false);
  const still = useStill();
  const ready = render?.state === "done";
  const number = render?.id;
  useEffect(() => {
    playhead.attach(ready ? after.current : null);
    return () => playhead.attach(null);
  }, [playhead, ready, number]);
  const shape = { aspectRatio: `${clip.width} / ${clip.height}` };
  return (
    <div className="grid grid-cols-1 gap-4 sm:grid-cols-2">
      <figure className="min-w-0">
        <div className="rounded relative overflow-hidden bg-ridge-5" style={shape}>
          <video
            ref={before}
            src={`/api/takes/${id}/film`}
            muted
            playsInline
            preload="auto"
            className="size-full"
            aria-label="As shot"
          />
          {windows && <CropLayer clip={clip} windows={windows} render={render} />}
        </div>
        <figcaption className="pt-1 text-small text-stone">As shot, with what is kept</figcaption>
      </figure>
      <figure className="min-w-0">
        <div className="rounded relative overflow-hidden bg-ridge-5" style={shape}>
          {ready && (
            <video
              key={render.id}
              ref={after}
              src={`/api/renders/${render.id}/film.mp4`}
              muted={!heard}
              playsInline
              autoPlay={!still}
              loop
              preload="auto"
              className="size-full cursor-pointer"
              aria-label="The remedy, rendered from this clip"
              onClick={() => playhead.toggle()}
              onPlay={playhead.changed}
              onPause={playhead.changed}
            >
              <track kind="captions" />
            </video>
          )}
          {!ready && <div className="absolute inset-0 grid place-items-center p-4">{children}</div>}
        </div>
        <figcaption className="pt-1 text-small text-stone">
          The remedy, rendered from this clip
          {ready && clip.has_sound && render.recipe.rate === 1 && (
            <button
              type="button"
              className="ml-3 underline hover:text-ink"
              onClick={() => setHeard(!heard)}
            >
              {heard ? "mute" : "listen"}
            </button>
          )}
        </figcaption>
      </figure>
      {ready && <InStep before={before} render={render} />}
    </div>
  );
}

/** Bring a film to a moment and a speed: at once where it stands, gently where it plays. */
function keepInStep(video: HTMLVideoElement, at: number, rate: number, playing: boolean) {
  video.playbackRate = Math.min(16, Math.max(0.0625, rate));
  const apart = Math.abs(video.currentTime - at);
  if (!playing) {
    video.pause();
    if (apart > 0.001) video.currentTime = at;
    return;
  }
  if (apart > APART_S) video.currentTime = at;
  if (video.paused) video.play().catch(() => undefined);
}

/** Keeps the clip as shot at the moment that the rendered one shows. */
function InStep({
  before,
  render,
}: {
  before: React.RefObject<HTMLVideoElement | null>;
  render: Render;
}) {
  const t = useTime();
  const playhead = usePlayhead();
  const { start_s, rate } = render.recipe;
  useEffect(() => {
    if (before.current) keepInStep(before.current, start_s + t * rate, rate, playhead.playing());
  }, [before, playhead, t, start_s, rate]);
  return null;
}

function CropLayer({
  clip,
  windows,
  render,
}: Omit<Props, "id" | "children" | "windows"> & {
  windows: Windows;
}) {
  const t = useTime();
  const at = render?.state === "done" ? render.recipe.start_s + t * render.recipe.rate : 0;
  const corners = windows.corners[nearest(windows.t_s, at)] ?? [];
  const points = [0, 2, 4, 6]
    .map((i) => `${(corners[i] ?? 0) * clip.width},${(corners[i + 1] ?? 0) * clip.height}`)
    .join(" ");
  const outer = `M0 0H${clip.width}V${clip.height}H0Z`;
  return (
    <svg
      viewBox={`0 0 ${clip.width} ${clip.height}`}
      className="pointer-events-none absolute inset-0 size-full"
      aria-hidden="true"
      data-testid="crop"
    >
      <path
        d={`${outer}M${points.replaceAll(" ", "L")}Z`}
        fillRule="evenodd"
        fill="#000"
        fillOpacity="0.55"
      />
      <polygon
        points={points}
        fill="none"
        stroke="var(--lamp)"
        strokeWidth={Math.max(clip.width, clip.height) / 400}
      />
    </svg>
  );
}
