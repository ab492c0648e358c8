import type { ShotAnswer, ShotAsked } from "../../../api/shot";
import * as format from "../../../formats";
import { NumberField } from "../../../ui/NumberField";
import { Select } from "../../../ui/Select";

type Props = { answer: ShotAnswer; put: (part: Partial<ShotAsked>) => void };

const SCREENS = (["phone", "laptop", "cinema"] as const).map((value) => ({
  value,
  words: format.SCREEN_WORDS[value],
}));
const WIDTHS = [1280, 1920, 3840];

/** Where it will be seen, and how it is delivered. */
export function Delivery({ answer, put }: Props) {
  const width = answer.delivery_width_px;
  const widths = WIDTHS.includes(width) ? WIDTHS : [width, ...WIDTHS];
  return (
    <>
      <Select
        label="Seen on"
        value={answer.screen}
        options={SCREENS}
        onChange={(screen) => put({ screen })}
      />
      <span className="flex items-center gap-2 text-note font-medium">
        Delivered
        <NumberField
          label="Delivery rate"
          unit="/s"
          min={12}
          max={120}
          value={answer.delivery_fps}
          onChange={(delivery_fps) => put({ delivery_fps })}
        />
        <Select
          label="Delivered width"
          value={String(width)}
          options={widths.map((one) => ({ value: String(one), words: `${one} px` }))}
          onChange={(one) => put({ delivery_width_px: Number(one) })}
        />
      </span>
    </>
  );
}
