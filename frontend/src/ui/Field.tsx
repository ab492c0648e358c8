import type { ReactNode } from "react";

/** A visible label over a control that names itself. */
export function Field({ words, children }: { words: string; children: ReactNode }) {
  return (
    <div className="min-w-0">
      <span className="mb-0.5 block text-small text-stone" aria-hidden="true">
        {words}
      </span>
      {children}
    </div>
  );
}
