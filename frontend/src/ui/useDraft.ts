import { useCallback, useState } from "react";

type Kept<T> = { base: string; value: T };

function read<T>(key: string, base: string): T | null {
  try {
    const kept = JSON.parse(sessionStorage.getItem(key) ?? "null") as Kept<T> | null;
    return kept?.base === base ? kept.value : null;
  } catch {
    return null;
  }
}

/**
 * What is being changed, apart from what is kept. It survives leaving the page and a reload, and
 * gives way once what it was made from has changed elsewhere.
 */
export function useDraft<T>(name: string, kept: T) {
  const key = `ridgewind-draft-${name}`;
  const base = JSON.stringify(kept);
  const [state, setState] = useState(() => ({ base, value: read<T>(key, base) }));
  const value = state.base === base && state.value !== null ? state.value : kept;
  const change = useCallback(
    (next: T) => {
      sessionStorage.setItem(key, JSON.stringify({ base, value: next }));
      setState({ base, value: next });
    },
    [key, base],
  );
  const drop = useCallback(() => {
    sessionStorage.removeItem(key);
    setState({ base, value: null });
  }, [key, base]);
  return { value, change, drop, changed: JSON.stringify(value) !== base };
}
