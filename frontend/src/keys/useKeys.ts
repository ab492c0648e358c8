import { useEffect, useId, useLayoutEffect, useMemo, useRef } from "react";
import { lettersAreOff } from "./letters";
import { linesOf, register, type KeyAct, type KeyWords } from "./register";

const TYPING = new Set(["INPUT", "TEXTAREA", "SELECT"]);
/** Inputs that take no text. */
const WITHOUT_TEXT = new Set(["range", "checkbox", "radio"]);
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

/** What goes on while its key is held; anything else is done once. */
const WHILE_HELD = /^(Arrow|Page)/;
/** Lists that are open: every key is theirs. */
const OPEN_LISTS = "[role=listbox],[role=menu]";
/** A closed list, in which a letter looks for an entry that begins with it. */
const CLOSED_LISTS = "[role=combobox]";

type Options = {
  /** They count on every page, and stand last in the list of keys. */
  everywhere?: boolean;
  /** They count before any other, and for a focused button too, as a remote sends them. Keys
   * of every page do not count while they do: they would leave what runs. */
  first?: boolean;
};

/** How many parts of the page are not to be left by a key. */
let alone = 0;

/** Keys of a page, each with what it does; the list of keys shows just these. */
export function useKeys(words: KeyWords, { everywhere = false, first = false }: Options = {}) {
  const id = useId();
  const latest = useRef<Record<string, KeyAct>>({});
  // Before anything is painted: a key pressed as soon as a page is seen is for that page, not for the
  // one that it took the place of.
  useLayoutEffect(() => {
    latest.current = Object.assign({}, ...Object.values(words)) as Record<string, KeyAct>;
  });
  const shown = JSON.stringify(linesOf(words));
  const lines = useMemo(() => JSON.parse(shown) as ReturnType<typeof linesOf>, [shown]);
  useEffect(() => register(id, { lines, everywhere }), [id, lines, everywhere]);
  useLayoutEffect(() => {
    if (!first) return;
    alone += 1;
    return () => void (alone -= 1);
  }, [first]);
  useLayoutEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return;
      if (document.querySelector("[role=dialog]")) return;
      if (alone > 0 && everywhere) return;
      if (first ? belongsToSlider(event) : belongsToControl(event)) return;
      const name = event.key.length === 1 ? event.key.toLowerCase() : event.key;
      const act = latest.current[event.shiftKey && name.length > 1 ? `Shift+${name}` : name];
      if (!act || (name.length === 1 && name !== " " && !first && lettersAreOff())) return;
      event.preventDefault();
      if (first) event.stopImmediatePropagation();
      if (!event.repeat || WHILE_HELD.test(event.key)) act(event);
    };
    window.addEventListener("keydown", listen, { capture: first });
    return () => window.removeEventListener("keydown", listen, { capture: first });
  }, [first, everywhere]);
}

function belongsToSlider(event: KeyboardEvent): boolean {
  return event.target instanceof HTMLInputElement && event.key.startsWith("Arrow");
}

/** Whether a key is for the control that has it. Escape leaves a field, and does no more. */
function belongsToControl(event: KeyboardEvent): boolean {
  const target = event.target;
  if (!(target instanceof HTMLElement)) return false;
  const kind = target.getAttribute("type") ?? "";
  if (TYPING.has(target.tagName) && !WITHOUT_TEXT.has(kind)) {
    if (event.key === "Escape") {
      event.preventDefault(); // a search field would be emptied
      target.blur();
    }
    return true;
  }
  if (target.closest(OPEN_LISTS)) return true;
  if (event.key.length === 1 && target.closest(CLOSED_LISTS)) return true;
  if (kind === "checkbox" && event.key === " ") return true;
  const role = target.getAttribute("role") ?? "";
  return Boolean(OWN_KEYS[target.tagName]?.has(event.key) || OWN_ROLES[role]?.has(event.key));
}
