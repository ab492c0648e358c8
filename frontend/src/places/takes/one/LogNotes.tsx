import type { TakeDetail } from "../../../api/client";
import { useLog, useLogAct, type LogLines } from "../../../api/logs";
import { linesIn, spanOf } from "../../../charts/lines";
import * as format from "../../../formats";
import { Button } from "../../../ui/Button";
import { useNotices } from "../../../ui/notices";
import { useWidth } from "../../../ui/useWidth";
import { LogButton } from "../log/LogButton";

const HEIGHT = 80;

/** The motion log that belongs to a film: where it lies, and how well the two agree. */
export function LogNotes({ detail }: { detail: TakeDetail }) {
  const found = useLog(detail.take.id, detail.log !== null);
  const { mutateAsync: send } = useLogAct(detail.take.id);
  const { notify, fail } = useNotices();
  const take = { id: detail.take.id, focal: detail.focal_eq_mm };
  const log = found.data;
  if (detail.clip?.from_log && detail.log === null) return null; // the log is all there is
  if (detail.log === null) {
    return (
      <section aria-label="Motion log" className="px-4 py-3 sm:px-8">
        <LogButton take={take} words="Add a motion log (CSV)" />
      </section>
    );
  }
  if (!log) return null;
  const takeAway = () =>
    send("take away")
      .then(() => {
        const undo = () => void send("bring back").catch(fail);
        notify({ text: `Took the motion log “${log.name}” away.`, undo });
      })
      .catch(fail);
  return (
    <section aria-label="Motion log" className="space-y-2 px-4 py-3 sm:px-8">
      <header className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <h2 className="label-wide">Motion log</h2>
        <p className="text-note text-stone">
          {log.name}, {log.rate_hz.toFixed(0)} samples a second.{" "}
          {log.offset_s === null
            ? "The picture could not be measured; the path is the log’s."
            : log.certainty === 0
              ? "The clocks of film and log place it."
              : `It begins ${Math.abs(log.offset_s).toFixed(2)} s ${log.offset_s < 0 ? "before" : "after"} the film; the match is ${format.certainty(log.certainty ?? 0)} (${format.share(log.correlation)} alike).`}
        </p>
        <span className="ml-auto">
          <Button look="bare" onClick={() => void takeAway()}>
            Take it away
          </Button>
        </span>
      </header>
      <BothSay log={log} />
      {log.offset_s !== null && <TwoLines log={log} />}
    </section>
  );
}

/** How much the camera shook by either; the log says it too where the picture cannot. */
function BothSay({ log }: { log: LogLines }) {
  const { of_picture: picture, of_log: turning } = log;
  if (!turning) return null;
  return (
    <p>
      {picture
        ? `By the picture: ${shakenWords(picture)}. `
        : "The picture does not say how the camera moved. "}
      By the log: {shakenWords(turning)}.
    </p>
  );
}

const shakenWords = (shaken: { gust: number; body_deg_s: number }) =>
  `gust ${format.gust(shaken.gust)}, the body ${format.degreesASecond(shaken.body_deg_s)}`;

/** Speed of pan of the picture, and of the log laid over it. */
function TwoLines({ log }: { log: LogLines }) {
  const [box, width] = useWidth<HTMLDivElement>();
  const series = [
    { t: log.picture_s, values: log.picture_pan },
    { t: log.log_s, values: log.log_pan },
  ];
  const [picture, turning] = linesIn(series, spanOf(series.slice(0, 1)), width, HEIGHT);
  return (
    <div ref={box}>
      {width > 0 && (
        <svg
          width={width}
          height={HEIGHT}
          role="img"
          aria-label="Pan of the picture and of the log, one over the other"
        >
          <path d={picture} fill="none" stroke="var(--ridge-3)" strokeWidth="3" />
          <path d={turning} fill="none" stroke="var(--ink)" strokeWidth="1" />
        </svg>
      )}
      <p className="text-small text-stone">
        Speed of pan: thick from the picture, thin from the log.
      </p>
    </div>
  );
}
