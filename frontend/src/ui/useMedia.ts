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
