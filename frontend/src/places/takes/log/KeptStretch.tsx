import { NumberField } from "../../../ui/NumberField";
import { beginningAt, endingAt, type Stretch } from "./stretch";

type Props = { seconds: number; longest: number; kept: Stretch; onChange: (kept: Stretch) => void };

/** Which part of a log of hours becomes a take, in minutes. */
export function KeptStretch({ seconds, longest, kept, onChange }: Props) {
  const log = { seconds, longest };
  const [from, to] = kept;
  return (
    <div className="flex flex-wrap items-center gap-2 text-note">
      <span>A take lasts up to {longest / 60} minutes. Keep from</span>
      <NumberField
        label="Keep from"
        unit="min"
        value={inMinutes(from)}
        min={0}
        max={Math.max(0, Math.floor(seconds / 60) - 1)}
        onChange={(minutes) => onChange(beginningAt(kept, 60 * minutes, log))}
      />
      <span>to</span>
      <NumberField
        label="Keep to"
        unit="min"
        value={inMinutes(to)}
        min={1}
        max={Math.ceil(seconds / 60)}
        onChange={(minutes) => onChange(endingAt(kept, 60 * minutes, log))}
      />
    </div>
  );
}

const inMinutes = (seconds: number) => Math.round(seconds / 6) / 10;
