/** The five bands, slow to fast, as every chart draws them. */
export const BANDS = [
  { name: "drift", words: "Drift", range: "under 0.3 Hz", colour: "var(--ridge-1)" },
  { name: "sway", words: "Sway", range: "0.3–1.2 Hz", colour: "var(--ridge-2)" },
  { name: "step", words: "Step", range: "1.2–4 Hz", colour: "var(--ridge-3)" },
  { name: "jitter", words: "Jitter", range: "4–14 Hz", colour: "var(--ridge-4)" },
  { name: "buzz", words: "Buzz", range: "over 14 Hz", colour: "var(--ridge-5)" },
] as const;
