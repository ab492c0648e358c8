import { Check, ChevronDown } from "lucide-react";
import { Select as Radix } from "radix-ui";
import { triggerLook, type SelectProps } from "./selectLook";

/** A choice that has been reached for: open at first, then as it is left. */
export function SelectPopup({
  label,
  value,
  options,
  onChange,
  wide = false,
}: SelectProps<string>) {
  return (
    <Radix.Root value={value} onValueChange={onChange} defaultOpen>
      <Radix.Trigger aria-label={label} className={triggerLook(wide)}>
        <Radix.Value />
        <ChevronDown size={13} className="text-stone" aria-hidden />
      </Radix.Trigger>
      <Radix.Portal>
        <Radix.Content
          position="popper"
          sideOffset={4}
          className="rounded z-(--layer-popup) border border-line bg-paper py-1 shadow-lg"
        >
          <Radix.Viewport className="max-h-[min(60vh,420px)] overflow-y-auto">
            {options.map((option) => (
              <Radix.Item
                key={option.value}
                value={option.value}
                className="relative flex items-center gap-2 py-1.5 pr-4 pl-7 text-note outline-none select-none data-[highlighted]:bg-mist"
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
