import { ToggleGroup } from "radix-ui";

type Props<T extends string> = {
  label: string;
  value: T;
  options: readonly { value: T; words: string }[];
  onChange: (value: T) => void;
};

/** A few choices side by side, one of them on. */
export function Segments<T extends string>({ label, value, options, onChange }: Props<T>) {
  return (
    <ToggleGroup.Root
      type="single"
      aria-label={label}
      value={value}
      onValueChange={(next) => next !== "" && onChange(next as T)}
      className="rounded inline-flex h-[28px] overflow-hidden border border-line bg-paper"
    >
      {options.map((option) => (
        <ToggleGroup.Item
          key={option.value}
          value={option.value}
          className="border-r border-line px-2.5 text-note font-medium text-stone last:border-r-0 hover:text-ink focus-visible:-outline-offset-2 data-[state=on]:bg-ink data-[state=on]:text-paper"
        >
          {option.words}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
