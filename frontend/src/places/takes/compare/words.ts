export const CHOICE_WORDS = {
  keep: "Kept",
  reject: "Rejected",
  retake: "To film again",
} as const;
