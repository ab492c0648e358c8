import type { ReactNode } from "react";

type Props = { words: string; drawing: ReactNode; children: ReactNode };

/** A panel of the bench: the drawing large, what is asked and what follows beside it. */
export function PanelFrame({ words, drawing, children }: Props) {
  return (
    <section
      aria-label={words}
      className="grid gap-x-8 gap-y-5 px-4 py-5 sm:px-8 lg:grid-cols-[minmax(0,1fr)_380px]"
    >
      <div className="min-w-0">{drawing}</div>
      <div className="min-w-0 space-y-5">{children}</div>
    </section>
  );
}

/** Said in place of a drawing whose figures cannot be computed. */
export function NoDrawing({ words }: { words: string }) {
  return (
    <p className="border-l-4 border-ember bg-paper px-4 py-3">
      {words} Correct what is marked; nothing is kept until then.
    </p>
  );
}
