import { Switch } from "radix-ui";
import type { ReactNode } from "react";

type Props = {
  label: string;
  on: boolean;
  onChange: (on: boolean) => void;
  children?: ReactNode;
  disabled?: boolean;
};

/** On or off. children: what is shown beside it, the label where there is nothing. */
export function Toggle({ label, on, onChange, children, disabled = false }: Props) {
  return (
    <span className={`inline-flex items-center gap-2 text-note ${disabled ? "text-stone" : ""}`}>
      <Switch.Root
        aria-label={label}
        checked={on}
        disabled={disabled}
        onCheckedChange={onChange}
        className="h-[18px] w-[32px] shrink-0 rounded-full border border-stone bg-mist data-[state=checked]:bg-ink disabled:opacity-50"
      >
        <Switch.Thumb className="block size-3 translate-x-0.5 rounded-full bg-stone transition-transform data-[state=checked]:translate-x-4 data-[state=checked]:bg-paper" />
      </Switch.Root>
      <span aria-hidden={children === undefined}>{children ?? label}</span>
    </span>
  );
}
