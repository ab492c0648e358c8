import { useCallback, useSyncExternalStore } from "react";

/** Whether a media query holds now. */
export function useMedia(query: string): boolean {
  const subscribe = useCallback(
    (act: () => void) => {
      const media = matchMedia(query);
      media.addEventListener("change", act);
      return () => media.removeEventListener("change", act);
    },
    [query],
  );
  return useSyncExternalStore(subscribe, () => matchMedia(query).matches);
}

/** Whether nothing may move by itself. */
export const useStill = () => useMedia("(prefers-reduced-motion: reduce)");
