import { NavLink } from "react-router";

/** The pages of one outing. */
export function OutingTabs({ id }: { id: number }) {
  const pages = [
    { to: `/sequence/${id}`, words: "Shots" },
    { to: `/sequence/${id}/joined`, words: "Joined" },
    { to: "/sequence", words: "All outings" },
  ];
  return (
    <nav
      aria-label="The outing"
      className="flex gap-1 overflow-x-auto border-b border-line bg-paper px-2 sm:px-6"
    >
      {pages.map((page) => (
        <NavLink
          key={page.to}
          to={page.to}
          end
          className="border-b-2 whitespace-nowrap border-transparent px-2 py-2 text-note font-medium text-stone hover:text-ink aria-[current=page]:border-ink aria-[current=page]:font-semibold aria-[current=page]:text-ink"
        >
          {page.words}
        </NavLink>
      ))}
    </nav>
  );
}
