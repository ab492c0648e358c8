import { useEffect, useRef } from "react";
import { NavLink, useLocation } from "react-router";

type Props = { label: string; pages: readonly { to: string; words: string }[] };

/** The pages of a place. One whose address others lie below is current at its own alone; it is
    brought into sight where not all of them have room. */
export function Tabs({ label, pages }: Props) {
  const row = useRef<HTMLElement>(null);
  const { pathname } = useLocation();
  useEffect(() => {
    const here = row.current?.querySelector<HTMLElement>("[aria-current=page]");
    if (!row.current || !here) return;
    const middle = here.offsetLeft + here.offsetWidth / 2;
    row.current.scrollLeft = middle - row.current.clientWidth / 2;
  }, [pathname]);
  return (
    <nav
      ref={row}
      aria-label={label}
      className="relative flex gap-1 overflow-x-auto border-b border-line bg-paper px-2 sm:px-6"
    >
      {pages.map((page) => (
        <NavLink
          key={page.to}
          to={page.to}
          end={pages.some((other) => other.to.startsWith(`${page.to}/`))}
          className="border-b-2 whitespace-nowrap border-transparent px-2 py-2 text-note font-medium text-stone hover:text-ink aria-[current=page]:border-ink aria-[current=page]:font-semibold aria-[current=page]:text-ink"
        >
          {page.words}
        </NavLink>
      ))}
    </nav>
  );
}
