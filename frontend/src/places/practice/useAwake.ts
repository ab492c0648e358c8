import { useEffect } from "react";

/** Keeps the screen awake while something runs, where the browser can; again after it was hidden. */
export function useAwake(running: boolean) {
  useEffect(() => {
    if (!running || !("wakeLock" in navigator)) return;
    let held: WakeLockSentinel | null = null;
    let over = false;
    const hold = () => {
      if (document.visibilityState !== "visible") return;
      navigator.wakeLock.request("screen").then(
        (lock) => (over ? void lock.release() : (held = lock)),
        () => undefined, // refused, as on a low battery: the session runs all the same
      );
    };
    hold();
    document.addEventListener("visibilitychange", hold);
    return () => {
      over = true;
      document.removeEventListener("visibilitychange", hold);
      void held?.release();
    };
  }, [running]);
}
