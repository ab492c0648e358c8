import { keptInTab } from "../api/browserStore";
import { useCallback, useState } from "react";

/** A state that outlives its page, and a reload, in this tab. */
export function useRemembered<T>(name: string, initial: T): [T, (next: T) => void] {
  const key = `ridgewind-${name}`;
  const [value, setValue] = useState<T>(() => {
    try {
      const before = keptInTab.get(key);
      return before === null ? initial : (JSON.parse(before) as T);
    } catch {
      return initial;
    }
  });
  const change = useCallback(
    (next: T) => {
      setValue(next);
      keptInTab.set(key, JSON.stringify(next));
    },
    [key],
  );
  return [value, change];
}
