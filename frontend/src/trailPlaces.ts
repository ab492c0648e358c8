/** Places in the order of the work; a place is on the trail once it works. */
export const PLACES = [
  { key: "1", to: "/plan", words: "Plan" },
  { key: "2", to: "/kit", words: "Kit" },
  { key: "3", to: "/practice", words: "Practice" },
  { key: "4", to: "/takes", words: "Takes" },
  { key: "5", to: "/findings", words: "Findings" },
  { key: "6", to: "/sequence", words: "Sequence" },
] as const;
