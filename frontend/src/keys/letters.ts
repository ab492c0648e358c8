import { kept } from "../api/browserStore";

/** Whether single letters and digits do nothing, for those whose voice or hand types them unasked. */

const OFF = "ridgewind-letters-off";

export const lettersAreOff = () => kept.get(OFF) === "yes";

export function switchLetters(off: boolean): void {
  kept.set(OFF, off ? "yes" : null);
}
