import { BANDS } from "../../../charts/bands";
import * as format from "../../../formats";

const [drift, ...faster] = BANDS;
const BREATH = { name: "breath", words: "Breath", colour: "var(--paper)" };
const WORDS: Record<string, string> = { step: "Footfalls", jitter: "Tremor" };

/** Kinds of shake in a hand, slow to fast, as the server tells their shares: the bands, by what a
    body does in them, with breath, left open, told apart. */
export const SHAKES = [drift, BREATH, ...faster].map(({ name, words, colour }) => ({
  name,
  words: WORDS[name] ?? words,
  colour,
}));

/** A kind as the profile calls it. */
export const kindWord = (kind: string) => (WORDS[kind] ?? kind).toLowerCase();

/** What a hand is made of, for who cannot see it; what is under one in a hundred is left out. */
export const shareWords = (shares: readonly number[]) =>
  shares
    .flatMap((share, k) =>
      share < 0.01 ? [] : [`${SHAKES[k]?.words.toLowerCase() ?? ""} ${format.share(share)}`],
    )
    .join(", ");
