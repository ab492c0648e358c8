import { NavLink } from "react-router";

const PAGES = [
  { to: "/findings", words: "Trials" },
  { to: "/findings/limits", words: "Limits" },
  { to: "/findings/progress", words: "Progress" },
  { to: "/findings/felt", words: "Felt" },
  { to: "/findings/hand", words: "Your hand" },
  { to: "/findings/shot", words: "Get a shot" },
  { to: "/findings/eye", words: "Your eye" },
] as const;

/** The pages of Findings. */
export function FindingsTabs() {
  return (
    <nav
      aria-label="Findings"
      className="flex gap-1 overflow-x-auto border-b border-line bg-paper px-2 sm:px-6"
    >
      {PAGES.map((page) => (
        <NavLink
          key={page.to}
          to={page.to}
          end={page.to === "/findings"}
          className="border-b-2 whitespace-nowrap border-transparent px-2 py-2 text-note font-medium text-stone hover:text-ink aria-[current=page]:border-ink aria-[current=page]:font-semibold aria-[current=page]:text-ink"
        >
          {page.words}
        </NavLink>
      ))}
    </nav>
  );
}
