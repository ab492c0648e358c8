import { useEffect, useRef } from "react";

export type KeyMap = Record<string, (event: KeyboardEvent) => void>;

const TYPING = new Set(["INPUT", "TEXTAREA", "SELECT"]);
/** Keys that a focused control needs for itself. */
const OWN_KEYS: Record<string, ReadonlySet<string>> = {
  BUTTON: new Set([" ", "Enter"]),
  A: new Set(["Enter"]),
};
const OWN_ROLES: Record<string, ReadonlySet<string>> = {
  slider: new Set(["ArrowLeft", "ArrowRight", "ArrowUp", "ArrowDown", "Home", "End"]),
  radio: new Set(["ArrowLeft", "ArrowRight", "ArrowUp", "ArrowDown", " ", "Enter"]),
  combobox: new Set(["ArrowUp", "ArrowDown", " ", "Enter"]),
  option: new Set(["ArrowUp", "ArrowDown", " ", "Enter"]),
};

function belongsToControl(event: KeyboardEvent): boolean {
  const target = event.target;
  if (!(target instanceof HTMLElement)) return false;
  if (TYPING.has(target.tagName) && event.key !== "Escape") return true;
  const role = target.getAttribute("role") ?? "";
  return Boolean(OWN_KEYS[target.tagName]?.has(event.key) || OWN_ROLES[role]?.has(event.key));
}

/** Keys of a page. "Shift+ArrowLeft" names a shifted key; letters are given in lower case. */
export function useKeys(keys: KeyMap): void {
  const latest = useRef(keys);
  useEffect(() => {
    latest.current = keys;
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return;
      if (document.querySelector("[role=dialog]") || belongsToControl(event)) return;
      const name = event.key.length === 1 ? event.key.toLowerCase() : event.key;
      const act = latest.current[event.shiftKey && name.length > 1 ? `Shift+${name}` : name];
      if (!act) return;
      event.preventDefault();
      act(event);
    };
    window.addEventListener("keydown", listen);
    return () => window.removeEventListener("keydown", listen);
  }, []);
}
