/**
 * Where notes are kept that no server takes: in the browser's store, for whenever the file is opened
 * again, and with the page itself, which outlives a reload. A private window may lose its store then
 * (one reload in twenty of a busy machine did), and some browsers keep nothing for files.
 */
export function keepNotes(name: string, notes: readonly object[]) {
  const text = JSON.stringify(notes);
  for (const keep of [
    () => localStorage.setItem(name, text),
    () => history.replaceState({ [name]: text }, ""),
  ]) {
    try {
      keep();
    } catch {
      // The other one may still; at the least they live as long as the page.
    }
  }
}

/** Notes as they were kept last; none where nothing is, or nothing that can be read. */
export function keptNotes(name: string): object[] {
  const ways = [
    () => localStorage.getItem(name),
    () => (history.state as Record<string, string> | null)?.[name] ?? null,
  ];
  for (const way of ways) {
    try {
      const text = way();
      if (text !== null) return JSON.parse(text) as object[];
    } catch {
      // Closed to files, or spoilt: the other one is asked.
    }
  }
  return [];
}
