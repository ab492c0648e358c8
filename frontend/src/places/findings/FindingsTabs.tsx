import { Tabs } from "../../ui/Tabs";

const PAGES = [
  { to: "/findings", words: "Trials" },
  { to: "/findings/limits", words: "Limits" },
  { to: "/findings/progress", words: "Progress" },
  { to: "/findings/felt", words: "Felt" },
  { to: "/findings/hand", words: "Your hand" },
  { to: "/findings/film", words: "Became film" },
  { to: "/findings/shot", words: "Get a shot" },
  { to: "/findings/eye", words: "Your eye" },
] as const;

/** The pages of Findings. */
export function FindingsTabs() {
  return <Tabs label="Findings" pages={PAGES} />;
}
