import { useLayoutEffect, useSyncExternalStore } from "react";

let wanted = 0;
const listeners = new Set<() => void>();

function change(by: number) {
  wanted += by;
  document.documentElement.toggleAttribute("data-whole-screen", wanted > 0);
  for (const listener of listeners) listener();
}

/** Leaves the whole window to a page, without the trail above it, for as long as it is shown. */
export function useWholeScreen(): void {
  useLayoutEffect(() => {
    change(1);
    return () => change(-1);
  }, []);
}

/** Whether a page has the whole window. */
export const useIsWholeScreen = () =>
  useSyncExternalStore(
    (changed) => {
      listeners.add(changed);
      return () => listeners.delete(changed);
    },
    () => wanted > 0,
  );
