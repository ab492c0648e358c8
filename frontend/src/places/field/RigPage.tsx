import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import { keys, useChanged } from "../../api/keys";
import { saveBlob } from "../../api/saving";
import { joinRig, sendLog, type JoinedFilm } from "../../api/logs";
import { SENSOR_FAULTS, watchTurning, type SensorSource } from "../../camera/motionSensor";
import type { Turning } from "../../camera/turning";
import * as format from "../../formats";
import { useKeys } from "../../keys/useKeys";
import { forgetLog, keptLogs, RIG_COLUMNS, RigRecorder, type KeptLog } from "../../live/rigLog";
import { FaultView } from "../../ui/FaultView";
import { useNotices } from "../../ui/notices";
import { useAwake } from "../practice/door";
import { BigButton } from "../../ui/BigButton";
import { Segments } from "../../ui/Segments";
import { TapedPhone } from "./TapedPhone";

const SOURCES = [
  { value: "phone", words: "This phone" },
  { value: "simulated", words: "Simulated phone" },
] as const satisfies { value: SensorSource; words: string }[];
const DRAW_MS = 500;

/** A phone taped to the camera: it logs its turning for a whole session, kept here until sent. */
export function RigPage() {
  const [source, setSource] = useState<SensorSource>("phone");
  const [state, setState] = useState<"off" | "begins" | "runs">("off");
  const [fault, setFault] = useState("");
  const [told, setTold] = useState({ seconds: 0, samples: 0 });
  const [full, setFull] = useState(false);
  const ending = useRef<(() => Promise<void>) | null>(null);
  const begins = useRef<AbortController | null>(null);
  const logs = useQuery({ queryKey: keys.rigLogs(), queryFn: keptLogs, networkMode: "always" });
  const runs = state === "runs";
  useAwake(runs);
  useEffect(() => {
    document.title = "On the rig · Ridgewind";
    return () => {
      begins.current?.abort();
      void ending.current?.();
    };
  }, []);
  const start = () => {
    setState("begins");
    setFault("");
    setFull(false);
    const recorder = new RigRecorder(Date.now(), (kept) => setFull(!kept));
    let samples = 0;
    const asked = (begins.current = new AbortController());
    const hear = (sample: Turning) => {
      samples += 1;
      recorder.push(sample, performance.timeOrigin + sample.at);
    };
    watchTurning(source, hear, asked.signal)
      .then((stop) => {
        const timer = setInterval(
          () => setTold({ seconds: (Date.now() - recorder.begun) / 1000, samples }),
          DRAW_MS,
        );
        ending.current = async () => {
          clearInterval(timer);
          stop();
          await recorder.keep();
          const lost = recorder.unkept;
          if (lost) saveBlob(new Blob([lost.csv], { type: "text/csv" }), `rig-${lost.begun}.csv`);
        };
        setState("runs");
      })
      .catch(() => {
        if (asked.signal.aborted) return;
        setFault(SENSOR_FAULTS[source]);
        setState("off");
      });
  };
  const stop = async () => {
    await ending.current?.();
    ending.current = null;
    setState("off");
    await logs.refetch();
  };
  const toggle = () => (runs ? void stop() : state === "off" && start());
  useKeys({ [runs ? "Stop" : "Start"]: { " ": toggle, Enter: toggle } });
  return (
    <div className="flex min-h-[calc(100dvh-var(--trail))] flex-col">
      <header className="border-b border-line px-4 pt-4 pb-3 sm:px-8">
        <h1 className="title text-title leading-tight">On the rig</h1>
        <p className="max-w-[70ch] text-note text-stone">
          Tape the phone to the camera, screen towards you, and start before the first take. Send
          the log once the films are in: it is cut by their times and joined to each by its motion.
        </p>
      </header>
      {fault && (
        <p role="alert" className="m-4 border-l-4 border-ember px-3 text-lead">
          <b>{fault}</b> Allow it, or choose the simulated phone to try it out.
        </p>
      )}
      {full && (
        <p role="alert" className="m-4 border-l-4 border-ember px-3 text-lead">
          <b>This browser has no room to keep the log.</b>{" "}
          {runs
            ? "It goes on, and is tried again every two seconds while this page stays open: make room on this phone."
            : "What was not kept is saved as a file instead: “Add a motion log” at its take takes it in."}
        </p>
      )}
      {state === "off" && (
        <div className="border-b border-line px-4 py-3 sm:px-8">
          <Segments
            big
            label="What is logged"
            value={source}
            options={SOURCES}
            onChange={setSource}
          />
        </div>
      )}
      <section
        aria-label="Logging"
        className="flex flex-1 flex-col items-center justify-center gap-1 px-4 py-4 text-center"
      >
        {runs ? (
          <>
            <p className="label-wide">
              <i className="mr-2 inline-block size-3 rounded-full bg-lamp" aria-hidden />
              Logging
            </p>
            <p className="figure-huge text-far-title leading-none" role="timer">
              {format.seconds(Math.floor(told.seconds))}
            </p>
            <p className="text-note text-stone">
              {told.samples} samples, {format.rate(told.samples / Math.max(1, told.seconds))}
            </p>
          </>
        ) : (
          <>
            <TapedPhone />
            <p className="text-lead text-stone">
              {state === "begins" ? "Opening…" : "Not logging."}
            </p>
          </>
        )}
      </section>
      {!runs && logs.data && <Waiting logs={logs.data} onChange={logs.refetch} />}
      <footer className="sticky bottom-0 flex justify-center border-t border-line bg-paper px-4 py-2">
        <BigButton main hint="Space" disabled={state === "begins"} onClick={toggle}>
          {runs ? "Stop" : "Start"}
        </BigButton>
      </footer>
    </div>
  );
}

type WaitingProps = { logs: KeptLog[]; onChange: () => unknown };

/** Logs that are kept in this browser until they are sent. */
function Waiting({ logs, onChange }: WaitingProps) {
  const changed = useChanged();
  const { notify } = useNotices();
  const send = useMutation({
    mutationFn: async (log: KeptLog) =>
      joinRig({
        name: `Phone on the rig, ${format.when(new Date(log.begun).toISOString()).time}`,
        upload: await sendLog(new File([log.csv], `rig-${log.begun}.csv`)),
        mapping: RIG_COLUMNS,
        sent_at_s: Date.now() / 1000,
      }),
    onSuccess: () => changed("motion"),
  });
  const letGo = async (log: KeptLog) => {
    const again = await forgetLog(log.begun);
    onChange();
    notify({ text: "The log is let go.", undo: () => void again().then(onChange) });
  };
  if (logs.length === 0 && !send.data) return null;
  return (
    <section aria-label="Logs kept here" className="border-t border-line px-4 py-3 sm:px-8">
      <h2 className="title text-heading">Kept here until sent</h2>
      {send.error && <FaultView error={send.error} />}
      <ul>
        {logs.map((log) => {
          const begun = format.when(new Date(log.begun).toISOString());
          return (
            <li
              key={log.begun}
              className="flex flex-wrap items-center gap-2 border-t border-line py-2"
            >
              <span className="min-w-0 flex-1">
                {begun.day}, {begun.time}
                <span className="block text-note text-stone">{format.seconds(log.seconds)}</span>
              </span>
              <BigButton disabled={send.isPending} onClick={() => send.mutate(log)}>
                {send.isPending ? "Joining…" : "Send"}
              </BigButton>
              <BigButton
                onClick={() =>
                  saveBlob(new Blob([log.csv], { type: "text/csv" }), `rig-${log.begun}.csv`)
                }
              >
                CSV
              </BigButton>
              <BigButton onClick={() => void letGo(log)}>Let it go</BigButton>
            </li>
          );
        })}
      </ul>
      {send.data && <Joined films={send.data.films} />}
    </section>
  );
}

const STATES = {
  joined: "joined by its motion",
  by_clock: "joined by the clock alone: its picture cannot be measured",
  unsure: "not joined: its motion is not found in the log for sure",
  outside: "not joined: it lies outside of the log",
} as const;

function Joined({ films }: { films: JoinedFilm[] }) {
  if (films.length === 0) {
    return (
      <p role="status" className="border-t border-line py-2">
        No film of that time is here yet. Bring the films in, then send the log again.
      </p>
    );
  }
  return (
    <ul aria-label="Films of the log" role="status">
      {films.map((film) => (
        <li key={film.take_id} className="border-t border-line py-1.5">
          <Link className="font-semibold underline" to={`/takes/${film.take_id}`}>
            {film.name}
          </Link>{" "}
          <span className="text-note text-stone">
            {STATES[film.state]}
            {film.ahead_s !== null &&
              `; the camera’s clock is ${format.exactSeconds(Math.abs(film.ahead_s))} ${film.ahead_s > 0 ? "behind" : "ahead"}`}
          </span>
        </li>
      ))}
    </ul>
  );
}
