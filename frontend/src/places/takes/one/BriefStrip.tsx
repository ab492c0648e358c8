import { Volume2 } from "lucide-react";
import type { ReactNode } from "react";
import type { Brief, TakeChange, TakeDetail } from "../../../api/client";
import { useBriefs } from "../../../api/kit";
import * as format from "../../../formats";
import { NumberField } from "../../../ui/NumberField";
import { Segments } from "../../../ui/Segments";
import { Select } from "../../../ui/Select";
import { Toggle } from "../../../ui/Toggle";

const FEELS = (["locked", "smooth", "alive", "raw"] as const).map((value) => ({
  value,
  words: format.FEEL_WORDS[value],
}));
const SCREENS = (["phone", "laptop", "cinema"] as const).map((value) => ({
  value,
  words: format.SCREEN_WORDS[value],
}));
const OWN = "own";

type Props = {
  detail: TakeDetail;
  target: number;
  onChange: (brief: Brief) => void;
  onPoint: (change: TakeChange) => void;
};

/** The brief in place: change a part and the verdict follows, without measuring again. */
export function BriefStrip({ detail, target, onChange, onPoint }: Props) {
  const { brief } = detail;
  const change = (part: Partial<Brief>) => onChange({ ...brief, ...part });
  return (
    <section aria-label="Brief" className="contents">
      <Part words="Brief">
        <Chooser detail={detail} onPoint={onPoint} />
      </Part>
      <Part words="Feel">
        <Segments
          label="Feel"
          value={brief.feel}
          options={FEELS}
          onChange={(feel) => change({ feel, own_target: null })}
        />
      </Part>
      <Part words="Target">
        <NumberField
          label="Target gust"
          unit=""
          digits={1}
          value={target}
          min={0}
          max={10}
          onChange={(own_target) => change({ own_target })}
        />
      </Part>
      <Part words="Wanted">
        <NumberField
          label="Wanted seconds"
          unit="s"
          value={brief.wanted_s}
          min={0.1}
          max={36000}
          onChange={(wanted_s) => change({ wanted_s })}
        />
      </Part>
      <Part words="Screen">
        <Select
          label="Screen"
          value={brief.screen}
          options={SCREENS}
          onChange={(screen) => change({ screen })}
        />
      </Part>
      <Part words="Delivery">
        <NumberField
          label="Delivery rate, frames a second"
          unit="/s"
          value={brief.delivery_fps}
          min={1}
          max={1000}
          onChange={(delivery_fps) => change({ delivery_fps })}
        />
      </Part>
      <Toggle
        label="Keep sound, so it may not be slowed"
        on={brief.keep_sound}
        onChange={(keep_sound) => change({ keep_sound })}
      >
        <Volume2 size={14} className="mr-1 inline text-stone" aria-hidden />
        Keep sound
      </Toggle>
    </section>
  );
}

function Chooser({ detail, onPoint }: Pick<Props, "detail" | "onPoint">) {
  const named = useBriefs().data?.briefs ?? [];
  const link = detail.brief_link;
  const options = [
    ...(link ? [] : [{ value: OWN, words: "Its own" }]),
    ...named
      .filter((item) => !item.archived || item.id === link?.id)
      .map((item) => ({ value: String(item.id), words: item.name })),
  ];
  if (link && !named.some((item) => item.id === link.id)) {
    options.push({ value: String(link.id), words: link.name });
  }
  return (
    <span className="inline-block w-[180px]">
      <Select
        label="Brief of this take"
        value={link ? String(link.id) : OWN}
        options={options}
        wide
        onChange={(next) => next !== OWN && onPoint({ brief_id: Number(next) })}
      />
    </span>
  );
}

export function Part({ words, children }: { words: string; children: ReactNode }) {
  return (
    <span className="inline-flex items-center gap-1.5">
      <span className="label-wide" aria-hidden="true">
        {words}
      </span>
      {children}
    </span>
  );
}
