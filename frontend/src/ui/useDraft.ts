import { useCallback, useState } from "react";

type Kept<T> = { base: string; value: T };

function read<T>(key: string): Kept<T> | null {
  try {
    return JSON.parse(sessionStorage.getItem(key) ?? "null") as Kept<T> | null;
  } catch {
    return null;
  }
}

/**
 * What is being changed, apart from what is kept. It survives leaving the page and a reload, and
 * also that what it was made from is changed elsewhere: then both are there, and `elsewhere` says
 * so, until one is chosen.
 */
export function useDraft<T>(name: string, kept: T) {
  const key = `ridgewind-draft-${name}`;
  const now = JSON.stringify(kept);
  const [state, setState] = useState(() => read<T>(key));
  const value = state?.value ?? kept;
  const begun = state?.base ?? now;
  const put = useCallback(
    (next: Kept<T> | null) => {
      try {
        if (next) sessionStorage.setItem(key, JSON.stringify(next));
        else sessionStorage.removeItem(key);
      } catch {
        // A browser without room: the draft lives as long as the page.
      }
      setState(next);
    },
    [key],
  );
  const change = useCallback((next: T) => put({ base: begun, value: next }), [put, begun]);
  const drop = useCallback(() => put(null), [put]);
  const changed = state !== null && JSON.stringify(value) !== now;
  return {
    value,
    /** What the change was begun from, as it was kept then. */
    base: JSON.parse(begun) as T,
    change,
    drop,
    changed,
    elsewhere: changed && begun !== now,
    /** Let the draft stand against what is kept now. */
    insist: () => put({ base: now, value }),
  };
}
