import { useCallback, useRef, useState } from "react";
import { ExplainedError, isChangedElsewhere } from "../api/client";
import { useNotices } from "./notices";

/** Keeps what was changed. A fault of one field stands at that field, a change in another window
 * where both are shown, any other in a notice. */
export function useSave() {
  const [fault, setFault] = useState<ExplainedError | null>(null);
  const [saving, setSaving] = useState(false);
  const busy = useRef(false);
  const { fail } = useNotices();
  const save = useCallback(
    async <T>(send: () => Promise<T>, onSaved: (kept: T) => void) => {
      if (busy.current) return; // pressed twice
      const unread = document.querySelector<HTMLElement>("main [data-unread=true]");
      if (unread) return unread.focus(); // its message says what is wrong with it
      busy.current = true;
      setSaving(true);
      try {
        const kept = await send();
        setFault(null);
        onSaved(kept);
      } catch (error) {
        if (error instanceof ExplainedError && error.field) setFault(error);
        else if (!isChangedElsewhere(error)) fail(error);
      } finally {
        busy.current = false;
        setSaving(false);
      }
    },
    [fail],
  );
  /** What is wrong with a field; its last name is enough. */
  const problem = (field: string) =>
    fault?.field === field || fault?.field?.endsWith(`.${field}`) ? fault.message : undefined;
  return { save, saving, problem, forget: useCallback(() => setFault(null), []) };
}
