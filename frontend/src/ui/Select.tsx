import { Check, ChevronDown } from "lucide-react";
import { Select as Radix } from "radix-ui";

type Props<T extends string> = {
  label: string;
  value: T;
  options: readonly { value: T; words: string }[];
  onChange: (value: T) => void;
  wide?: boolean;
};

/** One of a few choices. */
export function Select<T extends string>({
  label,
  value,
  options,
  onChange,
  wide = false,
}: Props<T>) {
  return (
    <Radix.Root value={value} onValueChange={(next) => onChange(next as T)}>
      <Radix.Trigger
        aria-label={label}
        className={`rounded inline-flex items-center gap-1 border border-line bg-paper px-2 text-note font-medium hover:border-ridge-2 ${wide ? "h-[30px] w-full justify-between" : "h-[28px]"} max-w-full [&>span]:truncate`}
      >
        <Radix.Value />
        <ChevronDown size={13} className="text-stone" aria-hidden />
      </Radix.Trigger>
      <Radix.Portal>
        <Radix.Content
          position="popper"
          sideOffset={4}
          className="rounded z-30 border border-line bg-paper py-1 shadow-lg"
        >
          <Radix.Viewport className="max-h-[min(60vh,420px)] overflow-y-auto">
            {options.map((option) => (
              <Radix.Item
                key={option.value}
                value={option.value}
                className="flex items-center gap-2 py-1.5 pr-4 pl-7 text-note outline-none select-none data-[highlighted]:bg-mist relative"
              >
                <Radix.ItemIndicator className="absolute left-2">
                  <Check size={13} aria-hidden />
                </Radix.ItemIndicator>
                <Radix.ItemText>{option.words}</Radix.ItemText>
              </Radix.Item>
            ))}
          </Radix.Viewport>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
