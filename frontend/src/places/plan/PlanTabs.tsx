import { Tabs } from "../../ui/Tabs";

const PAGES = [
  { to: "/plan", words: "Session" },
  { to: "/plan/weeks", words: "Weeks ahead" },
  { to: "/plan/drills", words: "Drills" },
  { to: "/plan/briefs", words: "Briefs" },
] as const;

/** The pages of Plan. */
export function PlanTabs() {
  return <Tabs label="Plan" pages={PAGES} />;
}
