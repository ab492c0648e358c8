import { Plus, Trash2 } from "lucide-react";
import { client, dataOf } from "../../api/client";
import type { Camera, Mode } from "../../api/kit";
import { useTakes } from "../../api/takes";
import { Button } from "../../ui/Button";
import { useNotices } from "../../ui/notices";
import { NumbersField } from "../../ui/NumbersField";
import { QuantityField } from "../../ui/QuantityField";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";
import type { Editor } from "./ItemPage";

const FIRST: Mode = {
  name: "Full HD",
  width_px: 1920,
  height_px: 1080,
  rates_hz: [25],
  crop: 0,
  mbit_s: 30,
};
const NONE = "none";

/** Recording modes, one a line; a take's file can tell of one. */
export function ModeFields({ spec, change, problem }: Editor<Camera>) {
  const put = (index: number, part: Partial<Mode>) =>
    change({ modes: spec.modes.map((mode, k) => (k === index ? { ...mode, ...part } : mode)) });
  return (
    <section aria-label="Recording modes" className="space-y-3">
      <header className="flex flex-wrap items-center gap-3">
        <h2 className="title text-heading">Recording modes</h2>
        <span className="ml-auto flex flex-wrap gap-2">
          <FromTake onMode={(mode) => change({ modes: [...spec.modes, mode] })} />
          <Button onClick={() => change({ modes: [...spec.modes, FIRST] })}>
            <Plus size={14} aria-hidden /> Add a mode
          </Button>
        </span>
      </header>
      {problem("modes") && (
        <p role="alert" className="text-small text-ember-deep">
          {problem("modes")}
        </p>
      )}
      <ul className="space-y-3">
        {spec.modes.map((mode, index) => (
          <li key={index}>
            <fieldset className="grid grid-cols-2 gap-x-4 gap-y-2 border-t border-line pt-2 sm:grid-cols-[1.3fr_80px_80px_1.4fr_80px_110px_28px]">
              <legend className="sr-only">{mode.name}</legend>
              <TextField
                label="Name"
                value={mode.name}
                problem={problem(`modes.${index}.name`)}
                onChange={(name) => put(index, { name })}
              />
              {(["width_px", "height_px"] as const).map((side) => (
                <QuantityField
                  key={side}
                  label={side === "width_px" ? "Wide" : "High"}
                  quantity="pixels"
                  value={mode[side]}
                  problem={problem(`modes.${index}.${side}`)}
                  onChange={(length) => put(index, { [side]: Math.round(length) })}
                />
              ))}
              <NumbersField
                label="Frames a second"
                values={mode.rates_hz}
                problem={problem(`modes.${index}.rates_hz`)}
                onChange={(rates_hz) => put(index, { rates_hz })}
              />
              <QuantityField
                label="Crops"
                quantity="share"
                value={mode.crop}
                problem={problem(`modes.${index}.crop`)}
                onChange={(crop) => put(index, { crop })}
              />
              <QuantityField
                label="Writes"
                quantity="mbit"
                value={mode.mbit_s}
                problem={problem(`modes.${index}.mbit_s`)}
                onChange={(mbit_s) => put(index, { mbit_s })}
              />
              <Button
                look="bare"
                className="mt-4 px-1!"
                aria-label={`Remove the mode ${mode.name}`}
                onClick={() => change({ modes: spec.modes.filter((_, k) => k !== index) })}
              >
                <Trash2 size={15} aria-hidden />
              </Button>
            </fieldset>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Reads size and rate from the file of a measured take. */
function FromTake({ onMode }: { onMode: (mode: Mode) => void }) {
  const { fail } = useNotices();
  const takes = useTakes({ sort: "imported", descending: true }).data?.pages[0]?.takes ?? [];
  const measured = takes.filter((take) => take.state === "done").slice(0, 12);
  if (measured.length === 0) return null;
  const read = (id: number) =>
    dataOf(client.GET("/api/takes/{take_id}", { params: { path: { take_id: id } } }))
      .then(({ clip, take }) => {
        if (!clip) return;
        const mbit_s = Number(((clip.size_bytes * 8) / 1e6 / clip.duration_s).toPrecision(2));
        onMode({
          name: `As in ${take.name}`.slice(0, 120),
          width_px: clip.width,
          height_px: clip.height,
          rates_hz: [Number(clip.fps.toFixed(2))],
          crop: 0,
          mbit_s: Math.max(0.1, mbit_s),
        });
      })
      .catch(fail);
  return (
    <Select
      label="Read a mode from a take's file"
      value={NONE}
      options={[
        { value: NONE, words: "Read one from a take" },
        ...measured.map((take) => ({ value: String(take.id), words: take.name })),
      ]}
      onChange={(next) => next !== NONE && void read(Number(next))}
    />
  );
}
