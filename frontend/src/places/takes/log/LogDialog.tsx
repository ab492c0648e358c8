import { useEffect, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { ExplainedError } from "../../../api/client";
import { useKeepLog, useLogPreview, useSentLog, type LogMapping } from "../../../api/logs";
import * as format from "../../../formats";
import { Button } from "../../../ui/Button";
import { Dialog } from "../../../ui/Dialog";
import { Key } from "../../../keys/Key";
import { Segments } from "../../../ui/Segments";
import { Select } from "../../../ui/Select";
import { Toggle } from "../../../ui/Toggle";
import { KeptStretch } from "./KeptStretch";
import { RatesDrawing } from "./RatesDrawing";
import type { Stretch } from "./stretch";

const USUAL_FOCAL = 26;

type Props = {
  file: File | null;
  onClose: () => void;
  /** Whose film the log belongs to; null for a take without a picture. */
  take?: { id: number; focal: number };
};

/** A motion log before it is kept: what its columns are, and what comes of it. */
export function LogDialog({ file, onClose, take }: Props) {
  return (
    <Dialog title="A motion log" open={file !== null} onClose={onClose} wide>
      {file && <Log file={file} onClose={onClose} {...(take ? { take } : {})} />}
    </Dialog>
  );
}

const PARTS = [
  { part: "pan", sign: "pan_sign", words: "Pan", way: "right" },
  { part: "tilt", sign: "tilt_sign", words: "Tilt", way: "up" },
  { part: "roll", sign: "roll_sign", words: "Roll", way: "clockwise" },
] as const;

function Log({ file, onClose, take }: Props & { file: File }) {
  const [mapping, setMapping] = useState<LogMapping | null>(null);
  const [chosen, setChosen] = useState<Stretch | null>(null);
  const sent = useSentLog(file);
  const found = useLogPreview(sent.data, mapping, take?.focal ?? USUAL_FOCAL);
  const keep = useKeepLog();
  const navigate = useNavigate();
  const main = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (found.isSuccess) main.current?.focus(); // so that Enter keeps it
  }, [found.isSuccess]);
  const preview = found.data;
  // A film finds its own place in a log of any length.
  const long = preview !== undefined && !take && preview.seconds > preview.longest_s;
  const kept = long ? (chosen ?? ([0, preview.longest_s] as const)) : null;
  const now = mapping ?? preview?.mapping;
  const fault = sent.error ?? found.error ?? keep.error;
  const put = (part: Partial<LogMapping>) => {
    if (!now) return;
    setMapping({ ...now, ...part });
    if (part.time ?? part.time_unit) setChosen(null); // of times that it has no more
  };
  const columns = (preview?.names ?? []).map((name) => ({ value: name, words: name }));
  const name = file.name.replace(/\.[^.]*$/, "").slice(0, 120) || "Motion log";
  const save = () => {
    if (!now || sent.data === undefined) return;
    keep.mutate(
      {
        name,
        upload: sent.data,
        mapping: now,
        take_id: take?.id ?? null,
        stretch: kept && { from_s: kept[0], to_s: kept[1] },
      },
      {
        onSuccess: (line) => {
          onClose();
          void navigate(`/takes/${line.id}`);
        },
      },
    );
  };
  return (
    <div className="space-y-4">
      <p className="text-note text-stone">
        {file.name}: time and three turning rates.{" "}
        {take ? "It is laid over the film by its motion." : "It becomes a take without a picture."}
      </p>
      {fault && (
        <p role="alert" className="border-l-4 border-ember pl-3">
          <b>{fault.message}</b> {fault instanceof ExplainedError && fault.hint}
        </p>
      )}
      {!preview && !fault && <p role="status">Reading it…</p>}
      {now && (
        <div className="grid gap-x-6 gap-y-2 sm:grid-cols-2">
          <div className="space-y-2">
            <Row words="Time">
              <Select
                label="Column of the time"
                value={now.time}
                options={columns}
                onChange={(time) => put({ time })}
              />
              <Segments
                label="Unit of the time"
                value={now.time_unit}
                options={(["s", "ms", "us", "ns"] as const).map((unit) => ({
                  value: unit,
                  words: unit === "us" ? "µs" : unit,
                }))}
                onChange={(time_unit) => put({ time_unit })}
              />
            </Row>
            <Row words="Rates in">
              <Segments
                label="Unit of the rates"
                value={now.rate_unit}
                options={[
                  { value: "deg_s", words: "degrees a second" },
                  { value: "rad_s", words: "radians a second" },
                ]}
                onChange={(rate_unit) => put({ rate_unit })}
              />
            </Row>
          </div>
          <div className="space-y-2">
            {PARTS.map(({ part, sign, words, way }) => (
              <Row key={part} words={words}>
                <Select
                  label={`Column of the ${part}`}
                  value={now[part]}
                  options={columns}
                  onChange={(column) => put({ [part]: column })}
                />
                <Toggle
                  label={`${words} is positive ${way}`}
                  on={now[sign] === 1}
                  onChange={(on) => put({ [sign]: on ? 1 : -1 })}
                >
                  + {way}
                </Toggle>
              </Row>
            ))}
          </div>
        </div>
      )}
      {preview && !found.error && (
        <>
          <RatesDrawing preview={preview} kept={kept} />
          <p className="text-note" data-testid="log-says">
            {format.seconds(preview.seconds)} at {preview.rate_hz.toFixed(0)} samples a second,{" "}
            {preview.gaps === 0 ? "no gaps" : `${preview.gaps} gaps`}. Gust{" "}
            <b>{format.gust(preview.gust)}</b>
            {kept && ", all of it,"} at {take?.focal ?? USUAL_FOCAL} mm.
          </p>
          {kept && (
            <KeptStretch
              seconds={preview.seconds}
              longest={preview.longest_s}
              kept={kept}
              onChange={setChosen}
            />
          )}
        </>
      )}
      <Button
        look="main"
        disabled={!now || found.error !== null || keep.isPending}
        onClick={save}
        ref={main}
      >
        {take ? "Lay it over the film" : "Keep it as a take"} <Key>Enter</Key>
      </Button>
    </div>
  );
}

function Row({ words, children }: { words: string; children: React.ReactNode }) {
  return (
    <div className="flex flex-wrap items-center gap-2">
      <span className="w-16 text-small text-stone">{words}</span>
      {children}
    </div>
  );
}
