import { useEffect } from "react";

/** Let a paired phone open these pages again while the computer is away. Where it does not trust the
 * certificate, its browser refuses, and all else works as before. */
export function useOffline(onPhone: boolean) {
  useEffect(() => {
    if (onPhone) navigator.serviceWorker?.register("/offline.js").catch(() => undefined);
  }, [onPhone]);
}
