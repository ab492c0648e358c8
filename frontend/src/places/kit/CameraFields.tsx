import type { Camera } from "../../api/kit";
import { NumbersField } from "../../ui/NumbersField";
import { QuantityField } from "../../ui/QuantityField";
import { TextField } from "../../ui/TextField";
import { Toggle } from "../../ui/Toggle";
import type { Editor } from "./ItemPage";
import { ModeFields } from "./ModeFields";
import { SensorDrawing } from "./SensorDrawing";

const SIDES = [
  ["width_mm", "Width"],
  ["height_mm", "Height"],
  ["depth_mm", "Depth"],
] as const;
const KINDS = [
  ["body", "Moves its sensor"],
  ["digital", "Crops digitally"],
] as const;

/** Sensor, modes, stabilisers, shutter and body of a camera. */
export function CameraFields(editor: Editor<Camera>) {
  const { spec, change, problem } = editor;
  const number = (name: "sound_up_to_hz" | "autofocus_up_to_hz", label: string) => (
    <QuantityField
      label={label}
      quantity="rate"
      value={spec[name]}
      problem={problem(name)}
      onChange={(value) => change({ [name]: value })}
    />
  );
  return (
    <>
      <div className="grid gap-x-8 gap-y-4 sm:grid-cols-[260px_1fr]">
        <SensorDrawing camera={spec} />
        <div className="grid grid-cols-2 content-start gap-x-5 gap-y-4 sm:grid-cols-3">
          <QuantityField
            label="Sensor, long side"
            quantity="optics_mm"
            value={spec.sensor_long_mm}
            problem={problem("sensor_long_mm")}
            onChange={(sensor_long_mm) => change({ sensor_long_mm })}
          />
          <QuantityField
            label="Sensor, short side"
            quantity="optics_mm"
            value={spec.sensor_short_mm}
            problem={problem("sensor_short_mm")}
            onChange={(sensor_short_mm) => change({ sensor_short_mm })}
          />
          <QuantityField
            label="Read-out, first line to last"
            quantity="milliseconds"
            value={spec.read_out_ms}
            optional
            problem={problem("read_out_ms")}
            onChange={(read_out_ms) => change({ read_out_ms })}
          />
          <QuantityField
            label="Mass, with battery and card"
            quantity="mass_g"
            value={spec.mass_g}
            problem={problem("mass_g")}
            onChange={(mass_g) => change({ mass_g })}
          />
          <TextField
            label="Mount"
            value={spec.mount}
            problem={problem("mount")}
            onChange={(mount) => change({ mount })}
          />
          {number("sound_up_to_hz", "Records sound up to")}
          {number("autofocus_up_to_hz", "Autofocus works up to")}
          {SIDES.map(([side, words]) => (
            <QuantityField
              key={side}
              label={words}
              quantity="size_mm"
              value={spec.size[side]}
              problem={problem(`size.${side}`)}
              onChange={(length) => change({ size: { ...spec.size, [side]: length } })}
            />
          ))}
        </div>
      </div>
      <ModeFields {...editor} />
      <div className="grid gap-x-8 gap-y-4 sm:grid-cols-2">
        {KINDS.map(([kind, words]) => (
          <Stabiliser key={kind} kind={kind} words={words} {...editor} />
        ))}
      </div>
      <NumbersField
        label="Shutter speeds, as 1 over"
        values={spec.shutters}
        problem={problem("shutters")}
        hint="Numbers with commas between: 25, 50, 100 stand for 1/25, 1/50 and 1/100 s."
        onChange={(shutters) => change({ shutters })}
      />
    </>
  );
}

type StabiliserProps = Editor<Camera> & { kind: "body" | "digital"; words: string };

function Stabiliser({ kind, words, spec, change, problem }: StabiliserProps) {
  const index = spec.stabilisers.findIndex((one) => one.kind === kind);
  const own = spec.stabilisers[index];
  const others = spec.stabilisers.filter((one) => one.kind !== kind);
  const put = (part: object) => {
    if (own) change({ stabilisers: [...others, { ...own, ...part }] });
  };
  return (
    <fieldset className="space-y-2">
      <legend className="sr-only">{words}</legend>
      <Toggle
        label={`Stabiliser: ${words.toLowerCase()}`}
        on={own !== undefined}
        onChange={(on) =>
          change({ stabilisers: on ? [...others, { kind, crop: 0, up_to_hz: 60 }] : others })
        }
      />
      {own && (
        <div className="grid grid-cols-2 gap-x-5">
          <QuantityField
            label="It crops"
            quantity="share"
            value={own.crop}
            problem={problem(`stabilisers.${index}.crop`)}
            onChange={(crop) => put({ crop })}
          />
          <QuantityField
            label="Works up to"
            quantity="rate"
            value={own.up_to_hz}
            problem={problem(`stabilisers.${index}.up_to_hz`)}
            onChange={(up_to_hz) => put({ up_to_hz })}
          />
        </div>
      )}
    </fieldset>
  );
}
