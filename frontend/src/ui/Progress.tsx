import { Progress as Radix } from "radix-ui";
import * as format from "../formats";

/** How far long work is; null where that cannot be told. */
export function Progress({ value, label }: { value: number | null; label: string }) {
  return (
    <div className="flex items-center gap-2 text-small text-stone">
      <Radix.Root
        value={value === null ? null : Math.round(100 * value)}
        aria-label={label}
        className="h-1.5 w-full min-w-16 overflow-hidden bg-line"
      >
        <Radix.Indicator
          className={`h-full bg-lamp ${value === null ? "w-1/4 animate-pulse" : ""}`}
          style={value === null ? undefined : { width: `${100 * value}%` }}
        />
      </Radix.Root>
      <span className="w-[5ch] whitespace-nowrap text-right">
        {value === null ? "" : format.share(value)}
      </span>
    </div>
  );
}
