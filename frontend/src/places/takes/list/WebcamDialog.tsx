import { useEffect, useRef, useState, type RefObject } from "react";
import { FEED_FAULTS, openFeed, type Feed, type FeedSource } from "../../../camera/feed";
import { record, type Recording } from "../../../camera/recording";
import { Button } from "../../../ui/Button";
import { Dialog } from "../../../ui/Dialog";
import { Key } from "../../../keys/Key";
import { useImports } from "./imports";

const LONGEST_S = 120;

/** A take filmed with a camera that is connected to this computer, or with a simulated one. */
export function WebcamDialog({ onClose }: { onClose: () => void }) {
  const [source, setSource] = useState<FeedSource>("connected");
  /** While it rolls, closing ends the take and asks what becomes of it. */
  const interruptRef = useRef<(() => void) | null>(null);
  const close = () => (interruptRef.current ? interruptRef.current() : onClose());
  return (
    <Dialog title="From a connected camera" open onClose={close} wide>
      <Webcam
        key={source}
        source={source}
        onSource={setSource}
        onClose={onClose}
        interruptRef={interruptRef}
      />
    </Dialog>
  );
}

type Props = {
  source: FeedSource;
  onSource: (source: FeedSource) => void;
  onClose: () => void;
  interruptRef: RefObject<(() => void) | null>;
};

function Webcam({ source, onSource, onClose, interruptRef }: Props) {
  const video = useRef<HTMLVideoElement>(null);
  const recorder = useRef<Recording | null>(null);
  const [feed, setFeed] = useState<Feed | null>(null);
  const [fault, setFault] = useState("");
  const [seconds, setSeconds] = useState<number | null>(null);
  const [broken, setBroken] = useState<File | null>(null);
  const { add } = useImports();
  const simulated = source === "simulated";
  useEffect(() => {
    let gone = false;
    let opened: Feed | null = null;
    openFeed(source)
      .then((found) => {
        opened = found;
        if (gone) return found.close();
        if (video.current) video.current.srcObject = found.stream;
        setFeed(found);
      })
      .catch(() => setFault(FEED_FAULTS[source]));
    return () => {
      gone = true;
      recorder.current?.drop(); // the page is left: nothing is kept that nobody sees
      interruptRef.current = null;
      opened?.close();
    };
  }, [source, interruptRef]);
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
    let asked = false;
    recorder.current = record(feed.stream, simulated ? "Simulated camera" : "Webcam", (film) => {
      interruptRef.current = null;
      setSeconds(null);
      if (asked && film.size > 0) {
        feed.close(); // nobody is seen any more
        return setBroken(film);
      }
      if (film.size > 0) add([film]);
      onClose();
    });
    interruptRef.current = () => {
      asked = true;
      recorder.current?.stop();
    };
    setSeconds(0);
  };
  const main = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (feed) main.current?.focus(); // so that Enter rolls, and stops
  }, [feed]);
  if (broken) return <Broken film={broken} onClose={onClose} />;
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
          <Button onClick={() => onSource(simulated ? "connected" : "simulated")}>
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

/** A take that was broken off: kept only if it is wanted. */
function Broken({ film, onClose }: { film: File; onClose: () => void }) {
  const { add } = useImports();
  const main = useRef<HTMLButtonElement>(null);
  useEffect(() => main.current?.focus(), []);
  const keep = () => {
    add([film]);
    onClose();
  };
  return (
    <div role="alert" className="space-y-3">
      <p>You broke this take off. Measure what was filmed, or let it go?</p>
      <div className="flex gap-3">
        <Button ref={main} look="main" onClick={keep}>
          Measure it <Key>Enter</Key>
        </Button>
        <Button onClick={onClose}>
          Let it go <Key>Esc</Key>
        </Button>
      </div>
    </div>
  );
}
