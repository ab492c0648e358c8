type Props<T extends string> = {
  label: string;
  chosen: readonly T[];
  options: readonly { value: T; words: string }[];
  onChange: (chosen: T[]) => void;
};

/** Any number of several, each on or off. */
export function Chips<T extends string>({ label, chosen, options, onChange }: Props<T>) {
  const toggle = (value: T) =>
    onChange(chosen.includes(value) ? chosen.filter((one) => one !== value) : [...chosen, value]);
  return (
    <div role="group" aria-label={label} className="flex flex-wrap gap-1.5">
      {options.map(({ value, words }) => (
        <button
          key={value}
          type="button"
          aria-pressed={chosen.includes(value)}
          onClick={() => toggle(value)}
          className={`rounded border px-2.5 py-1 text-note font-medium ${chosen.includes(value) ? "border-ink bg-ink text-paper" : "border-line bg-paper hover:border-ridge-2"}`}
        >
          {words}
        </button>
      ))}
    </div>
  );
}
