const KEY = "ridgewind-reloaded";
const LATELY_MS = 30_000;

/** Whether this page was reloaded for a missing file a moment ago; from now on it was. Where the
 * browser keeps nothing, it is taken to have been: a page that is broken is better than one that
 * reloads for ever. */
export function reloadedLately(now = Date.now()): boolean {
  try {
    const before = Number(sessionStorage.getItem(KEY) ?? 0);
    sessionStorage.setItem(KEY, String(now));
    return now - before < LATELY_MS;
  } catch {
    return true;
  }
}
