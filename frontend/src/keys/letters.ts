/** Whether single letters and digits do nothing, for those whose voice or hand types them unasked. */

const OFF = "ridgewind-letters-off";

export const lettersAreOff = () => localStorage.getItem(OFF) === "yes";

export function switchLetters(off: boolean): void {
  if (off) localStorage.setItem(OFF, "yes");
  else localStorage.removeItem(OFF);
}
