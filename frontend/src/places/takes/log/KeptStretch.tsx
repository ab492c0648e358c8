import { NumberField } from "../../../ui/NumberField";

export type Stretch = readonly [from_s: number, to_s: number];

type Props = { seconds: number; longest: number; kept: Stretch; onChange: (kept: Stretch) => void };

/** Which part of a log of hours becomes a take; its other end follows where it would be too long. */
export function KeptStretch({ seconds, longest, kept, onChange }: Props) {
  const [from, to] = kept;
  const minutes = Math.floor(seconds / 60);
  return (
    <div className="flex flex-wrap items-center gap-2 text-note">
      <span>A take lasts up to {longest / 60} minutes. Keep from</span>
      <NumberField
        label="Keep from"
        unit="min"
        value={from / 60}
        min={0}
        max={Math.max(0, minutes - 1)}
        onChange={(value) => {
          const start = 60 * value;
          onChange([
            start,
            Math.min(seconds, to > start ? Math.min(to, start + longest) : start + longest),
          ]);
        }}
      />
      <span>to</span>
      <NumberField
        label="Keep to"
        unit="min"
        value={Math.round(to / 6) / 10}
        min={1}
        max={Math.ceil(seconds / 60)}
        onChange={(value) => {
          const end = Math.min(seconds, 60 * value);
          onChange([from < end ? Math.max(from, end - longest) : Math.max(0, end - longest), end]);
        }}
      />
    </div>
  );
}
