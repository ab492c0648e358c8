import { ToggleGroup } from "radix-ui";

const SMALL =
  "border-r border-line px-2.5 text-note font-medium text-stone last:border-r-0 hover:text-ink focus-visible:-outline-offset-2 data-[state=on]:bg-ink data-[state=on]:text-paper";
const BIG =
  "rounded min-h-[48px] border border-ridge-2 px-4 text-lead font-medium data-[state=on]:border-ink data-[state=on]:bg-ink data-[state=on]:text-paper";

type Props<T extends string> = {
  label: string;
  value: T;
  options: readonly { value: T; words: string }[];
  onChange: (value: T) => void;
  /** For wet thumbs, at least 48 px high. */
  big?: boolean;
};

/** A few choices side by side, one of them on. */
export function Segments<T extends string>(props: Props<T>) {
  const { label, value, options, onChange, big = false } = props;
  return (
    <ToggleGroup.Root
      type="single"
      aria-label={label}
      value={value}
      onValueChange={(next) => next !== "" && onChange(next as T)}
      className={
        big
          ? "flex flex-wrap gap-1"
          : "rounded inline-flex h-[28px] overflow-hidden border border-line bg-paper"
      }
    >
      {options.map((option) => (
        <ToggleGroup.Item key={option.value} value={option.value} className={big ? BIG : SMALL}>
          {option.words}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
