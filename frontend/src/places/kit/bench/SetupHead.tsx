import { X } from "lucide-react";
import { useBriefs, type Kit, type Optics, type SetupAsk, type SetupItem } from "../../../api/kit";
import * as format from "../../../formats";
import { Field } from "../../../ui/Field";
import { QuantityField } from "../../../ui/QuantityField";
import { Select } from "../../../ui/Select";
import { TextField } from "../../../ui/TextField";
import { Toggle } from "../../../ui/Toggle";
import { cameraOf, lensOf } from "../words";
import { fitOptics, fits } from "./fit";

type Props = {
  kit: Kit;
  setup: SetupAsk;
  item: SetupItem | null;
  briefId: number | null;
  onBrief: (id: number | null) => void;
  change: (part: Partial<SetupAsk>) => void;
  nameProblem: string | undefined;
  problem: (field: string) => string | undefined;
};

const OPEN = "open";
const ADD = "add";
const IN_USE = "in-use";

/** What a set-up is made of and how it is set. */
export function SetupHead(props: Props) {
  const { kit, setup, change, nameProblem, problem, briefId, onBrief } = props;
  const camera = cameraOf(kit, setup.camera_id);
  const lens = lensOf(kit, setup.lens_id);
  const briefs = (useBriefs().data?.briefs ?? []).filter((one) => !one.archived);
  if (!camera || !lens) return null;
  const { optics } = setup;
  const set = (part: Partial<Optics>, on = camera.spec, through = lens.spec) =>
    change({ optics: fitOptics({ ...optics, ...part }, on, through) });
  const mode = camera.spec.modes[optics.mode];
  const choose = (list: { id: number; name: string; archived: boolean }[], own: number) =>
    list
      .filter((one) => !one.archived || one.id === own)
      .map((one) => ({ value: String(one.id), words: one.name }));
  return (
    <header className="space-y-2 px-4 pt-3 pb-3 sm:px-8">
      <div className="grid grid-cols-2 gap-x-5 gap-y-2 md:grid-cols-4">
        <h1 className="sr-only">{setup.name || "New set-up"}</h1>
        <div className="col-span-2 md:col-span-1">
          <TextField
            label="Set-up"
            value={setup.name}
            problem={nameProblem}
            {...(setup.name.trim() ? {} : { hint: "Give it a name to keep it." })}
            onChange={(name) => change({ name })}
          />
        </div>
        <Field words="Camera">
          <Select
            label="Camera"
            value={String(camera.id)}
            options={choose(kit.cameras, camera.id)}
            wide
            onChange={(next) => {
              const found = cameraOf(kit, Number(next));
              if (!found) return;
              const through = fits(found.spec, lens.spec)
                ? lens
                : (kit.lenses.find((one) => !one.archived && fits(found.spec, one.spec)) ?? lens);
              const fitted = fitOptics(optics, found.spec, through.spec);
              change({ camera_id: found.id, lens_id: through.id, optics: fitted });
            }}
          />
        </Field>
        <Field words="Lens">
          <Select
            label="Lens"
            value={String(lens.id)}
            options={[
              ...choose(
                kit.lenses.filter((one) => fits(camera.spec, one.spec)),
                lens.id,
              ),
              ...choose(
                kit.lenses.filter((one) => !fits(camera.spec, one.spec)),
                lens.id,
              ).map((one) => ({ ...one, words: `${one.words} (another mount)` })),
            ]}
            wide
            onChange={(next) => {
              const found = lensOf(kit, Number(next));
              if (!found) return;
              const fitted = fitOptics(optics, camera.spec, found.spec);
              change({ lens_id: found.id, optics: fitted });
            }}
          />
        </Field>
        <Field words="Judged by the brief">
          <Select
            label="Judged by the brief"
            value={briefId === null ? IN_USE : String(briefId)}
            options={[
              { value: IN_USE, words: `In use: ${briefs[0]?.name ?? ""}` },
              ...briefs.map((one) => ({ value: String(one.id), words: one.name })),
            ]}
            wide
            onChange={(next) => onBrief(next === IN_USE ? null : Number(next))}
          />
        </Field>
        <Field words="Recording mode">
          <Select
            label="Recording mode"
            value={String(optics.mode)}
            options={camera.spec.modes.map((one, index) => ({
              value: String(index),
              words: `${one.name} · ${one.width_px}×${one.height_px}`,
            }))}
            wide
            onChange={(next) => set({ mode: Number(next) })}
          />
        </Field>
        <Field words="Frames a second">
          <Select
            label="Frames a second"
            value={String(optics.rate_hz)}
            options={(mode?.rates_hz ?? []).map((rate) => ({
              value: String(rate),
              words: format.rate(rate),
            }))}
            wide
            onChange={(next) => set({ rate_hz: Number(next) })}
          />
        </Field>
        <QuantityField
          label="Focal length, true"
          quantity="optics_mm"
          value={optics.focal_mm}
          problem={problem("focal_mm")}
          disabled={lens.spec.focal_min_mm === lens.spec.focal_max_mm}
          {...(lens.spec.focal_min_mm < lens.spec.focal_max_mm
            ? { range: { min: lens.spec.focal_min_mm, max: lens.spec.focal_max_mm, even: true } }
            : {})}
          onChange={(focal_mm) => change({ optics: { ...optics, focal_mm } })}
        />
        <Field words="Shutter">
          <Select
            label="Shutter"
            value={optics.shutter === null ? OPEN : String(optics.shutter)}
            options={[
              { value: OPEN, words: "Left open" },
              ...camera.spec.shutters.map((speed) => ({
                value: String(speed),
                words: `1/${speed} s`,
              })),
            ]}
            wide
            onChange={(next) => set({ shutter: next === OPEN ? null : Number(next) })}
          />
        </Field>
      </div>
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
        <Stabilisers {...props} set={set} />
        <Toggle
          label="Slowed in the file itself"
          on={optics.stretched ?? false}
          onChange={(stretched) => set({ stretched })}
        />
        <Supports {...props} />
      </div>
    </header>
  );
}

function Stabilisers({ kit, setup, set }: Props & { set: (part: Partial<Optics>) => void }) {
  const camera = cameraOf(kit, setup.camera_id)?.spec;
  const lens = lensOf(kit, setup.lens_id)?.spec;
  const { optics } = setup;
  const has = (kind: string) => camera?.stabilisers.some((one) => one.kind === kind) ?? false;
  const all = [
    ["lens_stabiliser", "Stabiliser in the lens", lens?.stabiliser ?? false],
    ["body_stabiliser", "in the body", has("body")],
    ["digital_stabiliser", "digital", has("digital")],
  ] as const;
  const there = all.filter(([, , present]) => present);
  if (there.length === 0) return <span className="text-note text-stone">No stabiliser.</span>;
  return there.map(([field, words]) => (
    <Toggle key={field} label={words} on={optics[field]} onChange={(on) => set({ [field]: on })} />
  ));
}

function Supports({ kit, setup, change }: Props) {
  const own = setup.support_ids;
  const free = kit.supports.filter((one) => !one.archived && !own.includes(one.id));
  const name = (id: number) => kit.supports.find((one) => one.id === id)?.name ?? "";
  return (
    <span className="flex flex-wrap items-center gap-2">
      {own.map((id) => (
        <span
          key={id}
          className="rounded inline-flex items-center gap-1.5 border border-line bg-paper py-1 pr-1 pl-2 text-note"
        >
          {name(id)}
          <button
            type="button"
            aria-label={`Take ${name(id)} away`}
            onClick={() => change({ support_ids: own.filter((one) => one !== id) })}
            className="text-stone hover:text-ink"
          >
            <X size={14} />
          </button>
        </span>
      ))}
      <Select
        label="Add a support"
        value={ADD}
        options={[
          { value: ADD, words: "Add a support" },
          ...free.map((one) => ({ value: String(one.id), words: one.name })),
        ]}
        onChange={(next) => next !== ADD && change({ support_ids: [...own, Number(next)] })}
      />
    </span>
  );
}
