import { useEffect, useState } from "react";

const QUIET_MS = 250;

/** A value once it has not changed for a moment: what is typed is asked for when it is written. */
export function useSettled<T>(value: T, quiet_ms = QUIET_MS): T {
  const [settled, setSettled] = useState(value);
  const same = JSON.stringify(settled) === JSON.stringify(value);
  useEffect(() => {
    if (same) return;
    const timer = setTimeout(() => setSettled(value), quiet_ms);
    return () => clearTimeout(timer);
  }, [value, same, quiet_ms]);
  return same ? value : settled;
}
