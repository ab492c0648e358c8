import type { ComponentProps } from "react";

const LOOKS = {
  main: "border-ink bg-ink text-paper hover:bg-ridge-5 hover:text-paper",
  quiet: "border-ridge-2 bg-transparent text-ink hover:bg-paper",
  bare: "border-transparent bg-transparent text-stone hover:text-ink",
};

type Props = ComponentProps<"button"> & { look?: keyof typeof LOOKS };

/** A button; one `main` a page. */
export function Button({ look = "quiet", className = "", ...rest }: Props) {
  return (
    <button
      type="button"
      className={`rounded inline-flex items-center gap-2 border px-[11px] py-[7px] text-note font-semibold whitespace-nowrap disabled:opacity-50 ${LOOKS[look]} ${className}`}
      {...rest}
    />
  );
}
