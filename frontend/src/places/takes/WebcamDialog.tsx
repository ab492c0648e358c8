import { useEffect, useRef, useState } from "react";
import { Button } from "../../ui/Button";
import { Dialog } from "../../ui/Dialog";
import { Key } from "../../ui/Key";
import { useImports } from "./imports";

const KINDS = ["video/mp4;codecs=avc1", "video/webm;codecs=vp9", "video/webm"];
const LONGEST_S = 120;

/** A take filmed with a camera that is connected to this computer. */
export function WebcamDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Dialog title="From a connected camera" open={open} onClose={onClose} wide>
      <Webcam onClose={onClose} />
    </Dialog>
  );
}

function Webcam({ onClose }: { onClose: () => void }) {
  const video = useRef<HTMLVideoElement>(null);
  const recorder = useRef<MediaRecorder | null>(null);
  const stream = useRef<MediaStream | null>(null);
  const [fault, setFault] = useState(() =>
    "mediaDevices" in navigator ? "" : "This browser gives no camera to this page.",
  );
  const [ready, setReady] = useState(false);
  const [seconds, setSeconds] = useState<number | null>(null);
  const { add } = useImports();
  useEffect(() => {
    let gone = false;
    if (!("mediaDevices" in navigator)) return;
    navigator.mediaDevices
      .getUserMedia({
        video: { width: { ideal: 1920 }, height: { ideal: 1080 } },
        audio: false,
      })
      .then((found) => {
        if (gone) {
          found.getTracks().forEach((track) => track.stop());
          return;
        }
        stream.current = found;
        if (video.current) video.current.srcObject = found;
        setReady(true);
      })
      .catch(() => setFault("No camera answered, or the browser was told not to use it."));
    return () => {
      gone = true;
      if (recorder.current?.state === "recording") recorder.current.stop();
      stream.current?.getTracks().forEach((track) => track.stop());
    };
  }, []);
  const filming = seconds !== null;
  useEffect(() => {
    if (!filming) return;
    const timer = setInterval(() => setSeconds((now) => (now ?? 0) + 1), 1000);
    return () => clearInterval(timer);
  }, [filming]);
  const stop = () => recorder.current?.stop();
  useEffect(() => {
    if (seconds !== null && seconds >= LONGEST_S) recorder.current?.stop();
  }, [seconds]);
  const start = () => {
    if (!stream.current) return;
    const kind = KINDS.find((one) => MediaRecorder.isTypeSupported(one));
    const made = new MediaRecorder(stream.current, {
      ...(kind ? { mimeType: kind } : {}),
      videoBitsPerSecond: 12_000_000,
    });
    const parts: Blob[] = [];
    made.ondataavailable = (event) => event.data.size > 0 && parts.push(event.data);
    made.onstop = () => {
      const type = made.mimeType || "video/webm";
      const stamp = new Date()
        .toLocaleTimeString(undefined, { hour12: false })
        .replaceAll(":", ".");
      const name = `Webcam ${stamp}.${type.includes("mp4") ? "mp4" : "webm"}`;
      setSeconds(null);
      if (parts.length > 0) add([new File(parts, name, { type })]);
      onClose();
    };
    recorder.current = made;
    made.start(1000);
    setSeconds(0);
  };
  return (
    <div className="space-y-3">
      {fault ? (
        <p role="alert" className="border-l-4 border-ember pl-3">
          <b>{fault}</b> Connect one, allow it for this page, and open this again.
        </p>
      ) : (
        <video
          ref={video}
          autoPlay
          muted
          playsInline
          aria-label="What the camera sees"
          className="rounded aspect-video w-full bg-ridge-5"
        />
      )}
      <div className="flex items-center gap-3">
        <Button look="main" disabled={!ready} onClick={filming ? stop : start}>
          {filming ? "Stop and measure" : "Roll"} <Key>Enter</Key>
        </Button>
        <span className="text-note text-stone" aria-live="polite">
          {filming
            ? `Rolling, ${seconds} s`
            : "Two minutes at most; the film stays on this computer."}
        </span>
      </div>
    </div>
  );
}
