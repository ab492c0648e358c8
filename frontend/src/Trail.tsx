import { Moon, Settings as SettingsIcon, Sun } from "lucide-react";
import { NavLink } from "react-router";
import { useDrills } from "./api/practice";
import { usePulse, useStatus } from "./api/takes";
import type { Theme } from "./theme/useTheme";
import { Key } from "./keys/Key";
import { PLACES } from "./trailPlaces";

/** On a paired phone its own page comes first. */
const FIELD = { key: "0", to: "/field", words: "Field" } as const;

type Props = { theme: Theme; onTheme: () => void; onKeys: () => void };

/** The slim trail along the top, with a profile line that rises where something waits. */
export function Trail({ theme, onTheme, onKeys }: Props) {
  const status = useStatus();
  const onPhone = status.data?.phone != null;
  const measuring = usePulse().data?.busy ?? 0;
  const due = (useDrills().data?.drills ?? []).filter((item) => (item.overdue ?? -1) >= 0).length;
  const waiting: Partial<Record<string, { count: number; words: string }>> = {
    "/plan": { count: due, words: "due" },
    "/takes": { count: measuring, words: "to measure" },
  };
  return (
    <header className="relative flex flex-wrap items-center border-b border-line bg-paper px-4 pt-2 sm:h-[54px] sm:flex-nowrap sm:px-8 sm:pt-0 print:hidden">
      <span className="mr-3 text-heading font-[750] tracking-[-0.01em] [font-stretch:112%] sm:mr-3 lg:mr-8">
        Ridgewind
      </span>
      <nav
        aria-label="Places"
        className="order-last flex w-full justify-between text-note min-[420px]:text-body sm:order-none sm:w-auto sm:justify-start lg:gap-4"
      >
        {(onPhone ? [FIELD, ...PLACES] : PLACES).map((place) => {
          const { count, words } = waiting[place.to] ?? { count: 0, words: "" };
          return (
            <NavLink
              key={place.to}
              to={place.to}
              className="relative flex h-[42px] items-center gap-1.5 px-0.5 font-medium sm:h-[54px] sm:px-1.5 text-stone aria-[current=page]:font-bold aria-[current=page]:text-ink"
            >
              <Key>{place.key}</Key> {place.words}
              {count > 0 && (
                <b className="rounded absolute top-0.5 -right-3.5 ml-1 bg-lamp px-1 text-fine font-semibold text-lamp-ink sm:static sm:px-1.5">
                  {count}
                  <span className="sr-only lg:not-sr-only"> {words}</span>
                </b>
              )}
              <Profile rises={count > 0} />
            </NavLink>
          );
        })}
      </nav>
      <div className="ml-auto flex items-center gap-4 text-note text-stone">
        {status.data?.demo && (
          <span>
            Demo<span className="hidden lg:inline">: made clips of an invented mill</span>
          </span>
        )}
        <button
          type="button"
          onClick={onKeys}
          className="hidden items-center gap-1.5 hover:text-ink md:inline-flex"
        >
          <Key>?</Key> keys
        </button>
        {!onPhone && (
          <NavLink to="/settings" aria-label="Settings" className="hover:text-ink">
            <SettingsIcon size={16} />
          </NavLink>
        )}
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

/** A place's part of the profile line: joined to its neighbours, a hill where something waits. */
function Profile({ rises }: { rises: boolean }) {
  return (
    <svg
      className="pointer-events-none absolute bottom-[-1px] left-0 h-[14px] w-[calc(100%+4px)] sm:w-[calc(100%+16px)]"
      viewBox="0 0 100 14"
      preserveAspectRatio="none"
      aria-hidden="true"
    >
      <path
        d={
          rises
            ? "M0 13L12 9 24 12 40 3 56 9 68 5 84 13H100"
            : "M0 13L22 11.5 42 13 62 10.5 82 13H100"
        }
        fill="none"
        stroke="var(--ridge-4)"
        strokeWidth="1.3"
        vectorEffect="non-scaling-stroke"
      />
    </svg>
  );
}
