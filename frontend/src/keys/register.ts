/** Every shortcut that counts now, with its words: pages register theirs, and the list of keys is
 * made from what they registered. */

export type KeyAct = (event: KeyboardEvent) => void;
/** Keys by what they do. "Shift+ArrowLeft" names a shifted key; letters are in lower case. */
export type KeyWords = Record<string, Record<string, KeyAct>>;
export type KeyLine = { words: string; keys: string[] };
type Entry = { lines: KeyLine[]; everywhere: boolean };

const NAMES: Record<string, string> = {
  " ": "Space",
  Escape: "Esc",
  ArrowUp: "↑",
  ArrowDown: "↓",
  ArrowLeft: "←",
  ArrowRight: "→",
  PageUp: "Page up",
  PageDown: "Page down",
};

/** A key as it is shown: "Shift ←", "Space", "K". */
export function shownKey(key: string): string {
  const parts = key.length > 1 ? key.split("+") : [key];
  return parts
    .map((part) => NAMES[part] ?? (part.length === 1 ? part.toUpperCase() : part))
    .join(" ");
}

/** A line for each thing that can be done, with its keys. */
export function linesOf(words: KeyWords): KeyLine[] {
  return Object.entries(words).map(([said, keys]) => ({
    words: said,
    keys: Object.keys(keys).map(shownKey),
  }));
}

const entries = new Map<string, Entry>();
const listeners = new Set<() => void>();
let lines: KeyLine[] = [];

function changed() {
  const all = [...entries.values()].reverse();
  lines = [
    ...all.filter((entry) => !entry.everywhere).flatMap((entry) => entry.lines),
    ...all.filter((entry) => entry.everywhere).flatMap((entry) => entry.lines),
  ];
  for (const listener of listeners) listener();
}

/** Keep what a part of a page can do by key; returns how to take it away again. */
export function register(id: string, entry: Entry): () => void {
  entries.set(id, entry);
  changed();
  return () => {
    entries.delete(id);
    changed();
  };
}

/** The keys that count now: those of the page first, those of every page last. */
export const registered = () => lines;

export function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}
