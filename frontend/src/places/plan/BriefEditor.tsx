import type { Brief } from "../../api/client";
import { useChanged } from "../../api/keys";
import { actOnBrief, addBrief, type BriefItem } from "../../api/kit";
import { useStatus } from "../../api/takes";
import { BriefExample } from "./BriefExample";
import { TargetLadder } from "../../charts/TargetLadder";
import * as format from "../../formats";
import { ArchiveButton } from "../../ui/ArchiveButton";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { Key } from "../../keys/Key";
import { useNotices } from "../../ui/notices";
import { QuantityField } from "../../ui/QuantityField";
import { Segments } from "../../ui/Segments";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";
import { Toggle } from "../../ui/Toggle";
import { Elsewhere } from "../../ui/Elsewhere";
import { useDraft } from "../../ui/useDraft";
import { useSave } from "../../ui/useSave";
import { useKeys } from "../../keys/useKeys";
import { useSaveBrief } from "./useSaveBrief";

const FEELS = (["locked", "smooth", "alive", "raw"] as const).map((value) => ({
  value,
  words: format.FEEL_WORDS[value],
}));
const SCREENS = (["phone", "laptop", "cinema"] as const).map((value) => ({
  value,
  words: format.SCREEN_WORDS[value],
}));
const SIZES = ["1280×720", "1920×1080", "3840×2160", "1080×1920", "1080×1080"] as const;

type Props = { item: BriefItem; onUse: () => void; onCopied: (id: number) => void };

/** One brief, changed in place and kept on request. */
export function BriefEditor({ item, onUse, onCopied }: Props) {
  const draft = useDraft(`brief-${item.id}`, { name: item.name, brief: item.brief });
  const { save, problem, forget } = useSave();
  const saveBrief = useSaveBrief();
  const changed = useChanged();
  const { notify } = useNotices();
  const { name, brief } = draft.value;
  const overwrite = (base: { name: string; brief: Brief } | null) =>
    void save(() => saveBrief(item, name, brief, base), draft.drop);
  const keep = () => {
    if (!draft.changed) return;
    const own = { name: name === item.name ? `${name}, mine` : name, brief };
    if (!item.typical) {
      overwrite(draft.base);
      return;
    }
    void save(
      () => addBrief(own),
      (made) => {
        draft.drop();
        changed("verdicts");
        onCopied(made.id);
        notify({ text: `“${made.name}” is kept as your own.` });
      },
    );
  };
  useKeys({ Save: { s: keep } });
  return (
    <section aria-label={item.name} className="min-w-0 space-y-5 px-4 py-5 sm:px-8">
      {draft.elsewhere && (
        <Elsewhere
          what="brief"
          mine={draft.value}
          other={{ name: item.name, brief: item.brief }}
          onMine={() => overwrite(null)}
          onOther={draft.drop}
        />
      )}
      <BriefFields
        name={name}
        brief={brief}
        problem={problem}
        onChange={(next) => (forget(), draft.change(next))}
      />
      <footer className="flex flex-wrap items-center gap-3">
        <Button look="main" disabled={!draft.changed} onClick={keep}>
          {item.typical ? "Keep as your own" : "Save"} <Key>S</Key>
        </Button>
        {draft.changed && <Button onClick={draft.drop}>Undo the changes</Button>}
        {!item.usual && !item.archived && <Button onClick={onUse}>Use for new takes</Button>}
        <ArchiveButton
          name={item.name}
          archived={item.archived}
          act={(act) => actOnBrief(item.id, act)}
          onChanged={() => changed("verdicts")}
        />
        <span className="text-note text-stone">
          {item.typical
            ? "Typical briefs stay as they are; what you change is kept as your own."
            : `${format.takes(item.takes)} ${item.takes === 1 ? "points" : "point"} at it.`}
        </span>
      </footer>
    </section>
  );
}

type Draft = { name: string; brief: Brief };
type FieldsProps = Draft & {
  problem: (field: string) => string | undefined;
  onChange: (draft: Draft) => void;
};

function BriefFields({ name, brief, problem, onChange }: FieldsProps) {
  const feels: Record<string, number> = useStatus().data?.feels ?? {};
  const change = (part: Partial<Brief>) => onChange({ name, brief: { ...brief, ...part } });
  const target = brief.own_target ?? feels[brief.feel] ?? 0;
  const size = `${brief.delivery_width_px}×${brief.delivery_height_px}`;
  const sizes = SIZES.some((one) => one === size) ? [...SIZES] : [size, ...SIZES];
  return (
    <>
      <TargetLadder target={target} feels={feels} />
      {brief.likeness && (
        <BriefExample likeness={brief.likeness} onForget={() => change({ likeness: null })} />
      )}
      <div className="grid grid-cols-2 gap-x-5 gap-y-4 lg:grid-cols-4">
        <div className="col-span-2">
          <TextField
            label="Name"
            value={name}
            problem={problem("name") && "It needs a name"}
            onChange={(next) => onChange({ name: next, brief })}
          />
        </div>
        <div className="col-span-2">
          <Field words="Feel">
            <Segments
              label="Feel"
              value={brief.feel}
              options={FEELS}
              onChange={(feel) => change({ feel, own_target: null })}
            />
          </Field>
        </div>
        <QuantityField
          label={brief.own_target === null ? "Target gust, of the feel" : "Target gust, your own"}
          quantity="gust"
          value={target}
          range={{ min: 0, max: 10 }}
          problem={problem("own_target")}
          onChange={(own_target) => change({ own_target })}
        />
        <QuantityField
          label="Seconds wanted on screen"
          quantity="seconds"
          value={brief.wanted_s}
          range={{ min: 0.5, max: 60, even: true }}
          problem={problem("wanted_s")}
          onChange={(wanted_s) => change({ wanted_s })}
        />
        <QuantityField
          label="Delivery rate"
          quantity="rate"
          value={brief.delivery_fps}
          range={{ min: 12, max: 60 }}
          problem={problem("delivery_fps")}
          onChange={(delivery_fps) => change({ delivery_fps })}
        />
        <QuantityField
          label="Most crop for polish"
          quantity="percent"
          value={brief.most_crop_pct}
          range={{ min: 0, max: 30 }}
          problem={problem("most_crop_pct")}
          onChange={(most_crop_pct) => change({ most_crop_pct })}
        />
        <Field words="Seen on">
          <Select
            label="Screen"
            value={brief.screen}
            options={SCREENS}
            wide
            onChange={(screen) => change({ screen })}
          />
        </Field>
        <Field words="Delivered size, usual ones">
          <Select
            label="Delivered size, usual ones"
            value={size}
            options={sizes.map((value) => ({ value, words: value }))}
            wide
            onChange={(next) => {
              const [width, height] = next.split("×").map(Number);
              if (width && height) {
                change({ delivery_width_px: width, delivery_height_px: height });
              }
            }}
          />
        </Field>
        <QuantityField
          label="Delivered width"
          quantity="pixels"
          value={brief.delivery_width_px}
          problem={problem("delivery_width_px")}
          onChange={(width) => change({ delivery_width_px: Math.round(width) })}
        />
        <QuantityField
          label="Delivered height"
          quantity="pixels"
          value={brief.delivery_height_px}
          problem={problem("delivery_height_px")}
          onChange={(height) => change({ delivery_height_px: Math.round(height) })}
        />
        <div className="col-span-2 self-center">
          <Toggle
            label="Keep the sound, so it may not be slowed"
            on={brief.keep_sound}
            onChange={(keep_sound) => change({ keep_sound })}
          />
        </div>
        <div className="col-span-2 lg:col-span-4">
          <TextField
            label="Why shake is wanted where it is"
            lines={2}
            value={brief.why}
            problem={problem("why")}
            hint="For you alone: urgency, presence, a hard climb. It changes no figure."
            onChange={(why) => change({ why })}
          />
        </div>
      </div>
    </>
  );
}
