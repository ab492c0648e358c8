import { Plus, Trash2 } from "lucide-react";
import { keepDrill, type Drill, type Variation } from "../../../api/practice";
import { Button } from "../../../ui/Button";
import { Chips } from "../../../ui/Chips";
import { Field } from "../../../ui/Field";
import { Key } from "../../../keys/Key";
import { useNotices } from "../../../ui/notices";
import { QuantityField } from "../../../ui/QuantityField";
import { Select } from "../../../ui/Select";
import { TextField } from "../../../ui/TextField";
import { useDraft } from "../../../ui/useDraft";
import { useSave } from "../../../ui/useSave";
import { useKeys } from "../../../keys/useKeys";
import {
  LOAD_WORDS,
  MEASURE_WORDS,
  NEED_WORDS,
  optionsOf,
  SPACE_WORDS,
  TEMPO_WORDS,
} from "../words";
import { linesOf } from "./keys";

type Props = { drill: Drill; onKept: () => void };

/** A drill of one's own, changed in place. */
export function DrillEditor({ drill: kept, onKept }: Props) {
  const draft = useDraft(`drill-${kept.key}`, kept);
  const { save, problem, forget } = useSave();
  const { notify, fail } = useNotices();
  const drill = draft.value;
  const put = (part: Partial<Drill>) => (forget(), draft.change({ ...drill, ...part }));
  const keep = () => {
    if (!draft.changed) return;
    void save(
      () => keepDrill(drill),
      () => {
        draft.drop();
        onKept();
        const undo = () => void keepDrill(kept).then(onKept).catch(fail);
        notify({ text: `“${drill.name}” is kept.`, undo });
      },
    );
  };
  useKeys({ Save: { s: keep } });
  const lines = (field: "set_up" | "cues" | "cautions", label: string) => (
    <TextField
      label={`${label}, a line each`}
      lines={3}
      value={drill[field].join("\n")}
      onChange={(text) => put({ [field]: text.endsWith("\n") ? [...linesOf(text), ""] : linesOf(text) })}
    />
  ); // prettier-ignore
  const number = (field: "target" | "take_s" | "takes" | "rest_s", label: string) => (
    <QuantityField
      label={label}
      quantity={field === "target" ? "gust" : field === "takes" ? "count" : "seconds"}
      value={drill[field]}
      problem={problem(field)}
      onChange={(value) => put({ [field]: field === "takes" ? Math.round(value) : value })}
    />
  );
  return (
    <div className="max-w-[1000px] space-y-4 px-4 pb-10 sm:px-8">
      <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
        <TextField
          label="Name"
          value={drill.name}
          problem={problem("name")}
          onChange={(name) => put({ name })}
        />
        <TextField
          label="Purpose"
          value={drill.purpose}
          problem={problem("purpose")}
          onChange={(purpose) => put({ purpose })}
        />
        <TextField label="When to use it" value={drill.use} onChange={(use) => put({ use })} />
        <TextField label="When not" value={drill.avoid} onChange={(avoid) => put({ avoid })} />
      </div>
      <TextField
        label="The move"
        value={drill.move}
        problem={problem("move")}
        onChange={(move) => put({ move })}
      />
      <TextField
        label="What it should feel like"
        value={drill.feels ?? ""}
        onChange={(feels) => put({ feels })}
      />
      <Variations
        drill={drill}
        problem={problem("variations")}
        onChange={(variations) => put({ variations })}
      />
      <TextField
        label="If its ways differ by the lens alone, what their one hold is called"
        value={drill.one_hold}
        onChange={(one_hold) => put({ one_hold })}
      />
      <div className="grid grid-cols-2 gap-x-6 gap-y-3 sm:grid-cols-4">
        {number("target", "Passes at gust")}
        {number("take_s", "A take lasts")}
        {number("takes", "Takes in a set")}
        {number("rest_s", "Rest after each")}
        <Field words="Measured by">
          <Select
            label="Measured by"
            value={drill.measures}
            options={optionsOf(MEASURE_WORDS)}
            wide
            onChange={(measures) => put({ measures })}
          />
        </Field>
        <Field words="Space">
          <Select
            label="Space"
            value={drill.space}
            options={optionsOf(SPACE_WORDS)}
            wide
            onChange={(space) => put({ space })}
          />
        </Field>
        <Field words="Tempo">
          <Select
            label="Tempo"
            value={drill.tempo}
            options={optionsOf(TEMPO_WORDS)}
            wide
            onChange={(tempo) => put({ tempo })}
          />
        </Field>
      </div>
      <Field words="Needs">
        <Chips
          label="Needs"
          chosen={drill.needs}
          options={optionsOf(NEED_WORDS)}
          onChange={(needs) => put({ needs })}
        />
      </Field>
      <Field words="Loads">
        <Chips
          label="Loads"
          chosen={drill.loads}
          options={optionsOf(LOAD_WORDS)}
          onChange={(loads) => put({ loads })}
        />
      </Field>
      <div className="grid gap-x-6 gap-y-3 sm:grid-cols-3">
        {lines("set_up", "Set up")}
        {lines("cues", "Cues")}
        {lines("cautions", "Cautions")}
      </div>
      <footer className="flex items-center gap-3">
        <Button look="main" disabled={!draft.changed} onClick={keep}>
          Save <Key>S</Key>
        </Button>
        {draft.changed && <Button onClick={draft.drop}>Undo the changes</Button>}
      </footer>
    </div>
  );
}

type VariationsProps = {
  drill: Drill;
  problem: string | undefined;
  onChange: (variations: Variation[]) => void;
};

function Variations({ drill, problem, onChange }: VariationsProps) {
  const put = (index: number, part: Partial<Variation>) =>
    onChange(drill.variations.map((one, k) => (k === index ? { ...one, ...part } : one)));
  const add = () => {
    const key = `way-${drill.variations.length + 1}-${Date.now() % 10_000}`;
    // A pose is drawn, not typed: another way begins with that of the last one.
    const pose = drill.variations.at(-1)?.pose;
    if (!pose) return;
    onChange([
      ...drill.variations,
      { key, name: "Another way", control: false, how: "", reason: "", pose },
    ]);
  };
  return (
    <section aria-label="Ways" className="space-y-2">
      <header className="flex items-center gap-3">
        <h2 className="label-wide">Ways, the first is the plain control</h2>
        <Button className="ml-auto" onClick={add}>
          <Plus size={14} aria-hidden /> Add a way
        </Button>
      </header>
      {problem && (
        <p role="alert" className="text-small text-ember-deep">
          {problem}
        </p>
      )}
      {drill.variations.map((one, index) => (
        <fieldset
          key={one.key}
          className="grid gap-x-4 gap-y-2 border-t border-line pt-2 sm:grid-cols-[200px_1fr_1fr_28px]"
        >
          <legend className="sr-only">{one.name}</legend>
          <TextField
            label={one.control ? "Name, the control" : "Name"}
            value={one.name}
            onChange={(name) => put(index, { name })}
          />
          <TextField label="How" value={one.how} onChange={(how) => put(index, { how })} />
          <TextField
            label="Why some do it so"
            value={one.reason}
            onChange={(reason) => put(index, { reason })}
          />
          <Button
            look="bare"
            className="mt-4 px-1!"
            disabled={one.control || drill.variations.length <= 2}
            aria-label={`Remove the way ${one.name}`}
            onClick={() => onChange(drill.variations.filter((_, k) => k !== index))}
          >
            <Trash2 size={15} aria-hidden />
          </Button>
        </fieldset>
      ))}
    </section>
  );
}
