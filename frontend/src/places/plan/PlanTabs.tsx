import { NavLink } from "react-router";

const PAGES = [
  { to: "/plan", words: "Session" },
  { to: "/plan/weeks", words: "Weeks ahead" },
  { to: "/plan/drills", words: "Drills" },
  { to: "/plan/briefs", words: "Briefs" },
] as const;

/** The pages of Plan. */
export function PlanTabs() {
  return (
    <nav aria-label="Plan" className="flex gap-1 border-b border-line bg-paper px-2 sm:px-6">
      {PAGES.map((page) => (
        <NavLink
          key={page.to}
          to={page.to}
          end={page.to === "/plan"}
          className="border-b-2 border-transparent px-2 py-2 text-note font-medium text-stone hover:text-ink aria-[current=page]:border-ink aria-[current=page]:font-semibold aria-[current=page]:text-ink"
        >
          {page.words}
        </NavLink>
      ))}
    </nav>
  );
}
