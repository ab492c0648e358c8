import { useEffect, useRef } from "react";
import type { Filming } from "./useFilmedTakes";

/** What the connected camera sees, small; larger things stand beside it. */
export function CameraCorner({ filming, rolling }: { filming: Filming; rolling: boolean }) {
  const video = useRef<HTMLVideoElement>(null);
  const { feed, fault } = filming;
  useEffect(() => {
    if (video.current) video.current.srcObject = feed?.stream ?? null;
  }, [feed]);
  if (fault) {
    return (
      <p role="alert" className="border-l-4 border-ember px-3 text-lead">
        <b>{fault}</b> The session goes on without it: film with your own, or stop, connect one and
        begin again.
      </p>
    );
  }
  if (!feed) return null;
  return (
    <video
      ref={video}
      autoPlay
      muted
      playsInline
      aria-label={rolling ? "The camera rolls" : "What the camera sees"}
      className={`absolute top-3 right-3 z-(--layer-raised) w-[22vw] max-w-[220px] border-4 ${rolling ? "border-ember" : "border-paper"}`}
    />
  );
}
