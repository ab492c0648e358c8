import { useEffect, useRef, type SyntheticEvent } from "react";

type Props = {
  src: string;
  /** Part of the film, s; all of it where `to` is null. */
  from: number;
  to: number | null;
  playing: boolean;
  label: string;
  poster?: string;
  testId?: string;
  className: string;
};

/** A silent film, or a part of one, over and over. */
export function LoopedFilm({ src, from, to, playing, label, poster, testId, className }: Props) {
  const video = useRef<HTMLVideoElement>(null);
  useEffect(() => {
    if (playing) video.current?.play().catch(() => undefined);
    else video.current?.pause();
  }, [playing, src]);
  const toStart = (event: SyntheticEvent<HTMLVideoElement>) => {
    if (from > 0) event.currentTarget.currentTime = from;
  };
  const keepInPart = (event: SyntheticEvent<HTMLVideoElement>) => {
    const film = event.currentTarget;
    if (to !== null && film.currentTime >= to) film.currentTime = from;
  };
  return (
    <video
      ref={video}
      key={src}
      src={src}
      poster={poster}
      muted
      loop
      playsInline
      preload="auto"
      aria-label={label}
      data-testid={testId}
      onLoadedMetadata={toStart}
      onTimeUpdate={keepInPart}
      className={className}
    />
  );
}
