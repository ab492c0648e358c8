import { useId, useState } from "react";

type Props = {
  label: string;
  unit: string;
  value: number;
  min: number;
  max: number;
  digits?: number;
  onChange: (value: number) => void;
};

/** A number with its unit; taken over on Enter or on leaving, refused with its range. */
export function NumberField({ label, unit, value, min, max, digits, onChange }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const id = useId();
  const text = typed?.trim().replace(",", ".");
  const number = text === undefined ? value : text === "" ? NaN : Number(text);
  const wrong = !(number >= min && number <= max);
  const commit = () => {
    if (typed !== null && !wrong && number !== value) onChange(number);
    setTyped(null);
  };
  return (
    <label className="rounded inline-flex h-[28px] items-center gap-1 border border-control bg-paper px-2 text-note focus-within:border-ridge-4">
      <span className="sr-only">{label}</span>
      <input
        inputMode="decimal"
        aria-invalid={wrong}
        aria-describedby={wrong ? id : undefined}
        value={typed ?? (digits === undefined ? String(value) : value.toFixed(digits))}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => {
          if (event.key === "Enter") commit();
          if (event.key === "Escape") setTyped(null);
        }}
        className="w-[4.5ch] bg-transparent text-right font-medium outline-none aria-invalid:text-ember-deep"
      />
      {unit && <span className="text-stone">{unit}</span>}
      {wrong && (
        <span id={id} role="alert" className="text-small whitespace-nowrap text-ember-deep">
          {min} to {max}
        </span>
      )}
    </label>
  );
}
