/** What the browser keeps for the next visit, or for this tab. A private window may keep nothing, and
 * refuse even to be asked: then nothing was kept, and nothing is. */
function storeOf(of: () => Storage) {
  return {
    get(key: string): string | null {
      try {
        return of().getItem(key);
      } catch {
        return null;
      }
    },
    /** null takes it away. Returns whether it is kept. */
    set(key: string, value: string | null): boolean {
      try {
        if (value === null) of().removeItem(key);
        else of().setItem(key, value);
        return true;
      } catch {
        return false;
      }
    },
  };
}

export const kept = storeOf(() => localStorage);
export const keptInTab = storeOf(() => sessionStorage);
