import { useCallback, useState } from "react";

/** A state that outlives its page, and a reload, in this tab. */
export function useRemembered<T>(name: string, initial: T): [T, (next: T) => void] {
  const key = `ridgewind-${name}`;
  const [value, setValue] = useState<T>(() => {
    try {
      const kept = sessionStorage.getItem(key);
      return kept === null ? initial : (JSON.parse(kept) as T);
    } catch {
      return initial;
    }
  });
  const change = useCallback(
    (next: T) => {
      setValue(next);
      sessionStorage.setItem(key, JSON.stringify(next));
    },
    [key],
  );
  return [value, change];
}
