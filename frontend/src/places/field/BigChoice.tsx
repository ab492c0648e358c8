import { ToggleGroup } from "radix-ui";

type Props<T extends string> = {
  label: string;
  value: T;
  options: readonly { value: T; words: string }[];
  onChange: (value: T) => void;
};

/** A few choices for wet thumbs, one of them on. */
export function BigChoice<T extends string>({ label, value, options, onChange }: Props<T>) {
  return (
    <ToggleGroup.Root
      type="single"
      aria-label={label}
      value={value}
      onValueChange={(next) => next !== "" && onChange(next as T)}
      className="flex flex-wrap gap-1"
    >
      {options.map((option) => (
        <ToggleGroup.Item
          key={option.value}
          value={option.value}
          className="rounded min-h-[48px] border border-ridge-2 px-4 text-lead font-medium data-[state=on]:border-ink data-[state=on]:bg-ink data-[state=on]:text-paper"
        >
          {option.words}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
