import { Volume2 } from "lucide-react";
import { Switch } from "radix-ui";
import type { ReactNode } from "react";
import type { Brief } from "../../api/client";
import * as format from "../../formats";
import { NumberField } from "../../ui/NumberField";
import { Segments } from "../../ui/Segments";
import { Select } from "../../ui/Select";

const FEELS = (["locked", "smooth", "alive", "raw"] as const).map((value) => ({
  value,
  words: format.FEEL_WORDS[value],
}));
const SCREENS = (["phone", "laptop", "cinema"] as const).map((value) => ({
  value,
  words: format.SCREEN_WORDS[value],
}));

type Props = { brief: Brief; target: number; onChange: (brief: Brief) => void };

/** The brief in place: change a part and the verdict follows, without measuring again. */
export function BriefStrip({ brief, target, onChange }: Props) {
  const change = (part: Partial<Brief>) => onChange({ ...brief, ...part });
  return (
    <section
      aria-label="Brief"
      className="order-last flex flex-wrap items-center gap-x-4 gap-y-2 px-4 pb-3 sm:px-8 md:order-none"
    >
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
      <Part words="Lens">
        <NumberField
          label="Equivalent focal length, mm"
          unit="mm"
          value={brief.focal_eq_mm}
          min={4}
          max={2000}
          onChange={(focal_eq_mm) => change({ focal_eq_mm })}
        />
      </Part>
      <span className="inline-flex items-center gap-2 text-note">
        <Volume2 size={14} className="text-stone" aria-hidden /> Keep sound
        <Switch.Root
          aria-label="Keep sound, so it may not be slowed"
          checked={brief.keep_sound}
          onCheckedChange={(keep_sound) => change({ keep_sound })}
          className="h-[18px] w-[32px] rounded-full border border-stone bg-mist data-[state=checked]:bg-ink"
        >
          <Switch.Thumb className="block size-3 translate-x-0.5 rounded-full bg-stone transition-transform data-[state=checked]:translate-x-4 data-[state=checked]:bg-paper" />
        </Switch.Root>
      </span>
    </section>
  );
}

function Part({ words, children }: { words: string; children: ReactNode }) {
  return (
    <span className="inline-flex items-center gap-2">
      <span className="label-wide" aria-hidden="true">
        {words}
      </span>
      {children}
    </span>
  );
}
