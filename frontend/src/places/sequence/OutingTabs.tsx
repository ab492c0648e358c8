import { Tabs } from "../../ui/Tabs";

/** The pages of one outing, and the way back to all. */
export function OutingTabs({ id }: { id: number }) {
  const pages = [
    { to: `/sequence/${id}`, words: "Shots" },
    { to: `/sequence/${id}/joined`, words: "Joined" },
    { to: "/sequence", words: "All outings" },
  ];
  return <Tabs label="The outing" pages={pages} />;
}
