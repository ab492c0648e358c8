import { useEffect, useRef, useState } from "react";
import { Button } from "../../../ui/Button";
import { Dialog } from "../../../ui/Dialog";
import { Key } from "../../../keys/Key";
import { useImports } from "./imports";
import { simulatedCamera, type Feed } from "./simulatedCamera";

const KINDS = ["video/mp4;codecs=avc1", "video/webm;codecs=vp9", "video/webm"];
const LONGEST_S = 120;
const BITS_PER_S = 12_000_000;
type Source = "camera" | "simulated";

/** A take filmed with a camera that is connected to this computer, or with a simulated one. */
export function WebcamDialog({ onClose }: { onClose: () => void }) {
  const [source, setSource] = useState<Source>("camera");
  return (
    <Dialog title="From a connected camera" open onClose={onClose} wide>
      <Webcam key={source} source={source} onSource={setSource} onClose={onClose} />
    </Dialog>
  );
}

async function connectedCamera(): Promise<Feed> {
  if (!("mediaDevices" in navigator)) throw new Error("no camera");
  const stream = await navigator.mediaDevices.getUserMedia({
    video: { width: { ideal: 1920 }, height: { ideal: 1080 } },
    audio: false,
  });
  return { stream, close: () => stream.getTracks().forEach((track) => track.stop()) };
}

type Props = { source: Source; onSource: (source: Source) => void; onClose: () => void };

function Webcam({ source, onSource, onClose }: Props) {
  const video = useRef<HTMLVideoElement>(null);
  const recorder = useRef<MediaRecorder | null>(null);
  const [feed, setFeed] = useState<Feed | null>(null);
  const [fault, setFault] = useState("");
  const [seconds, setSeconds] = useState<number | null>(null);
  const { add } = useImports();
  const simulated = source === "simulated";
  useEffect(() => {
    let gone = false;
    let opened: Feed | null = null;
    (simulated ? simulatedCamera() : connectedCamera())
      .then((found) => {
        opened = found;
        if (gone) return found.close();
        if (video.current) video.current.srcObject = found.stream;
        setFeed(found);
      })
      .catch(() =>
        setFault(
          simulated
            ? "This browser could not play the simulated camera’s film."
            : "No camera answered, or the browser was told not to use it.",
        ),
      );
    return () => {
      gone = true;
      if (recorder.current?.state === "recording") recorder.current.stop();
      opened?.close();
    };
  }, [simulated]);
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
    if (!feed) return;
    recorder.current = record(feed.stream, (film) => {
      setSeconds(null);
      const name = `${simulated ? "Simulated camera" : "Webcam"} ${film.name}`;
      if (film.size > 0) add([new File([film], name, { type: film.type })]);
      onClose();
    });
    setSeconds(0);
  };
  const main = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (feed) main.current?.focus(); // so that Enter rolls, and stops
  }, [feed]);
  return (
    <div className="space-y-3">
      {fault ? (
        <p role="alert" className="border-l-4 border-ember pl-3">
          <b>{fault}</b> {!simulated && "Connect one, allow it for this page, and open this again."}
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
      {simulated && (
        <p className="text-note">
          <b>Simulated:</b> a film by the stand-in camera, again and again. Where it begins anew
          counts as a cut.
        </p>
      )}
      <div className="flex flex-wrap items-center gap-3">
        <Button ref={main} look="main" disabled={!feed} onClick={filming ? stop : start}>
          {filming ? "Stop and measure" : "Roll"} <Key>Enter</Key>
        </Button>
        {!filming && (
          <Button onClick={() => onSource(simulated ? "camera" : "simulated")}>
            {simulated ? "Use a connected camera" : "Try a simulated camera"}
          </Button>
        )}
        <span className="text-note text-stone" aria-live="polite">
          {filming
            ? `Rolling, ${seconds} s`
            : "Two minutes at most; the film stays on this computer."}
        </span>
      </div>
    </div>
  );
}

/** Record a stream; the film is handed over once it was stopped. */
function record(stream: MediaStream, onFilm: (film: File) => void): MediaRecorder {
  const kind = KINDS.find((one) => MediaRecorder.isTypeSupported(one));
  const made = new MediaRecorder(stream, {
    ...(kind ? { mimeType: kind } : {}),
    videoBitsPerSecond: BITS_PER_S,
  });
  const parts: Blob[] = [];
  made.ondataavailable = (event) => event.data.size > 0 && parts.push(event.data);
  made.onstop = () => {
    const type = made.mimeType || "video/webm";
    const time = new Date().toLocaleTimeString(undefined, { hour12: false }).replaceAll(":", ".");
    onFilm(new File(parts, `${time}.${type.includes("mp4") ? "mp4" : "webm"}`, { type }));
  };
  made.start(1000);
  return made;
}
