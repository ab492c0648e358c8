import { Moon, Sun } from "lucide-react";
import { NavLink } from "react-router";
import { useStatus, useTakes } from "./api/takes";
import type { Theme } from "./theme/useTheme";
import { Key } from "./ui/Key";

/** Places in the order of the work; a place is on the trail once it works. */
export const PLACES = [{ key: "4", to: "/takes", words: "Takes" }] as const;

type Props = { theme: Theme; onTheme: () => void; onKeys: () => void };

/** The slim trail along the top, with a profile line that rises where something waits. */
export function Trail({ theme, onTheme, onKeys }: Props) {
  const status = useStatus();
  const waiting = useTakes({ sort: "imported", descending: true }).data?.pages[0]?.busy ?? 0;
  return (
    <header className="relative flex h-[54px] items-center border-b border-line bg-paper px-4 sm:px-8">
      <span className="mr-6 text-[17px] font-[750] tracking-[-0.01em] [font-stretch:112%] sm:mr-9">
        Ridgewind
      </span>
      <nav aria-label="Places" className="flex">
        {PLACES.map((place) => (
          <NavLink
            key={place.to}
            to={place.to}
            className="relative flex h-[54px] items-center gap-1.5 px-1 font-medium text-stone aria-[current=page]:font-bold aria-[current=page]:text-ink"
          >
            <Key>{place.key}</Key> {place.words}
            {waiting > 0 && (
              <b className="rounded ml-1 bg-lamp px-1.5 text-[11.5px] font-semibold text-lamp-ink">
                {waiting} to measure
              </b>
            )}
          </NavLink>
        ))}
      </nav>
      <svg
        className="pointer-events-none absolute bottom-[-1px] left-[120px] h-[14px] w-[260px] sm:left-[160px]"
        viewBox="0 0 260 14"
        aria-hidden="true"
        preserveAspectRatio="none"
      >
        <path
          d={
            waiting > 0
              ? "M0 13H20l14-4 14 3 16-9 18 6 14-4 20 8H260"
              : "M0 13H24l14-3 16 2 18-4 20 5H260"
          }
          fill="none"
          stroke="var(--ridge-4)"
          strokeWidth="1.3"
        />
      </svg>
      <div className="ml-auto flex items-center gap-4 text-note text-stone">
        {status.data?.demo && (
          <span>
            Demo: made clips<span className="hidden sm:inline">, emptied at every start</span>
          </span>
        )}
        <button
          type="button"
          onClick={onKeys}
          className="hidden items-center gap-1.5 hover:text-ink sm:inline-flex"
        >
          <Key>?</Key> keys
        </button>
        <button
          type="button"
          onClick={onTheme}
          aria-label={theme === "light" ? "Use the dusk theme" : "Use the light theme"}
          className="hover:text-ink"
        >
          {theme === "light" ? <Moon size={16} /> : <Sun size={16} />}
        </button>
      </div>
    </header>
  );
}
