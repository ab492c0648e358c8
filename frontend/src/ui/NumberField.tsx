import { useState } from "react";

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
  const number = typed === null ? value : Number(typed.replace(",", "."));
  const wrong = !(number >= min && number <= max);
  const commit = () => {
    if (typed !== null && !wrong && number !== value) onChange(number);
    setTyped(null);
  };
  return (
    <label className="rounded inline-flex h-[28px] items-center gap-1 border border-line bg-paper px-2 text-note focus-within:border-ridge-4">
      <span className="sr-only">{label}</span>
      <input
        inputMode="decimal"
        aria-invalid={wrong}
        title={wrong ? `Between ${min} and ${max}` : undefined}
        value={typed ?? (digits === undefined ? String(value) : value.toFixed(digits))}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => {
          if (event.key === "Enter") commit();
          if (event.key === "Escape") setTyped(null);
        }}
        className="w-[4.5ch] bg-transparent text-right font-medium outline-none aria-invalid:text-ember"
      />
      {unit && <span className="text-stone">{unit}</span>}
    </label>
  );
}
