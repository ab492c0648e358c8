import type { Middleware } from "openapi-fetch";
import { useSyncExternalStore } from "react";

/** When the answers on screen were given, where a phone kept them while the computer is away. */
let since: Date | null = null;
const listeners = new Set<() => void>();

function set(next: Date | null) {
  if (next?.getTime() === since?.getTime()) return;
  since = next;
  for (const told of listeners) told();
}

/** Marks answers that were kept, see offline/worker.ts. */
export const watchKept: Middleware = {
  onResponse({ response }) {
    const given = response.headers.get("X-Kept");
    set(given === null ? null : new Date(given));
  },
};

export function useKeptSince(): Date | null {
  return useSyncExternalStore(
    (changed) => {
      listeners.add(changed);
      return () => listeners.delete(changed);
    },
    () => since,
  );
}
