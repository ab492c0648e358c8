import type { Feeling, Noted } from "../../../api/progress";
import * as format from "../../../formats";
import { signed } from "../trials/words";

const inHundred = (share: number) => Math.round(100 * share);

export const TIREDNESS = ["", "fresh", "warm", "working", "tired", "spent"] as const;

export const tirednessWord = (level: number) =>
  `${level}${TIREDNESS[level] ? `, ${TIREDNESS[level]}` : ""}`;

/** Whether feeling can be trusted, in a sentence. */
export function feelingWords(feeling: Feeling | null, felt: number): string {
  if (feeling === null) {
    return felt === 0
      ? "No take has a feeling noted yet."
      : "Too few takes to say: it takes some that felt good and some that felt bad, of one technique.";
  }
  const told = `Of two takes, the one that felt good was the steadier ${inHundred(feeling.right)} times in a hundred (${inHundred(feeling.low)} to ${inHundred(feeling.high)}).`;
  const word = {
    trust: "Your feeling can be trusted.",
    against: "What feels good to you is the rougher: look at the figure.",
    nothing: "Your feeling tells nothing of the shake: look at the figure.",
    open: "Whether your feeling can be trusted is not told yet.",
  }[feeling.word];
  return `${word ?? ""} ${told}`;
}

export const shortFeeling = (feeling: Feeling | null) =>
  feeling === null
    ? "too few takes"
    : `${{ trust: "trust it", against: "the other way round", nothing: "tells nothing", open: "not told yet" }[feeling.word] ?? ""}, ${inHundred(feeling.right)} of 100 (${inHundred(feeling.low)} to ${inHundred(feeling.high)})`;

export function tirednessWords(noted: Noted): string {
  const { tiredness } = noted;
  if (tiredness === null) {
    return noted.tired === 0
      ? "No take has a tiredness noted yet: the runner asks after each take."
      : "Every tiredness that was noted is alike, so nothing can be compared yet.";
  }
  if (tiredness.stop_from !== null) {
    return `From “${tirednessWord(tiredness.stop_from)}” on it is worth stopping: your takes are surely rougher there, by half a gust or more.`;
  }
  const worst = tiredness.levels.reduce((a, b) => (b.value > a.value ? b : a));
  return `No tiredness that you noted surely brings half a gust: the most, at ${tirednessWord(worst.level)}, is ${signed(worst.value)}.`;
}

export function placeWords(noted: Noted): string {
  const { tiring, stop_after } = noted;
  if (tiring === null) return "How fast you tire cannot be told from these takes yet.";
  const within =
    tiring.low !== null && tiring.high !== null
      ? ` (${signed(tiring.low)} to ${signed(tiring.high)})`
      : "";
  const told = `Each further take of a session adds ${signed(tiring.value)}${within}.`;
  return stop_after === null
    ? `${told} No tiring can be told.`
    : `${told} After about ${Math.round(stop_after)} takes you are half a gust rougher.`;
}

export function restWords(noted: Noted): string {
  const { rest } = noted;
  if (rest === null) {
    return noted.rests_alike
      ? "All your rests between takes were about alike, so what a longer one is worth is not known: take one of three minutes now and then."
      : "What a rest is worth cannot be told yet.";
  }
  const { value, low, high } = rest.doubled;
  const within = low !== null && high !== null ? ` (${signed(low)} to ${signed(high)})` : "";
  const usual = format.seconds(rest.usual_s);
  if (high !== null && high < 0) {
    const longer = value * Math.log2(rest.longest_s / rest.usual_s);
    return `Twice the rest before a take: ${signed(value)}${within}. ${format.seconds(rest.longest_s)} instead of your usual ${usual} is worth ${signed(longer)}.`;
  }
  return `Twice the rest before a take: ${signed(value)}${within}. A longer rest than ${usual} surely helps nothing so far.`;
}
