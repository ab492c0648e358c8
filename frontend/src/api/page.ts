const random = () =>
  Array.from(crypto.getRandomValues(new Uint8Array(12)), (byte) =>
    byte.toString(36).padStart(2, "0"),
  ).join("");

/** This opening of the page. */
export const PAGE = random();

/** This tab, which stays the same through a reload. */
export const TAB = tabOf();

function tabOf(): string {
  try {
    const known = sessionStorage.getItem("ridgewind-tab");
    if (known) return known;
    const made = random();
    sessionStorage.setItem("ridgewind-tab", made);
    return made;
  } catch {
    return random();
  }
}
