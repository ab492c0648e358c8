import type { ComponentProps } from "react";
import { Key } from "../keys/Key";

type Props = ComponentProps<"button"> & { main?: boolean; hint?: string };

/** A button for wet thumbs, at least 48 px high. */
export function BigButton({ main = false, hint, children, ...rest }: Props) {
  return (
    <button
      type="button"
      className={`rounded inline-flex min-h-[52px] items-center justify-center gap-2 border px-5 text-lead font-semibold disabled:opacity-50 ${main ? "border-ink bg-ink text-paper" : "border-ridge-2"}`}
      {...rest}
    >
      {children}
      {hint && (
        <span className="hidden sm:inline">
          <Key>{hint}</Key>
        </span>
      )}
    </button>
  );
}
