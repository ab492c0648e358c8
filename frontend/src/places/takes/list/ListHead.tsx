import type { ReactNode, Ref } from "react";
import { Link } from "react-router";
import { Key } from "../../../keys/Key";
import { Chooser, type ChooserHandle } from "./Chooser";
import { Filters } from "./Filters";
import { setFilters } from "./narrowing";
import type { ListActs } from "./useListActs";
import type { TakesOfList } from "./useTakesOfList";

type Props = {
  list: TakesOfList;
  acts: ListActs;
  narrow: boolean;
  onNarrow: () => void;
  beside: boolean;
  onBeside: () => void;
  search: Ref<HTMLInputElement>;
  chooser: Ref<ChooserHandle>;
};

/** How many takes there are, how they are narrowed and ordered, and the way in for new ones. */
export function ListHead(props: Props) {
  const { list, acts, narrow, onNarrow, beside, onBeside, search, chooser } = props;
  const { first, filter, setFilter } = list;
  const set = setFilters(filter);
  return (
    <header className="flex flex-wrap items-center gap-x-4 gap-y-3 border-b border-line px-4 pt-4 pb-3 sm:px-8">
      <h1 className="title text-title leading-tight">Takes</h1>
      {first && first.all > 0 && (
        <>
          <p className="text-stone" aria-live="polite">
            {first.total === first.all ? `${first.all}` : `${first.total} of ${first.all}`}
            {first.busy > 0 && `, ${first.busy} to measure`}
          </p>
          <div className="flex flex-wrap items-center gap-x-3 gap-y-2 sm:ml-auto">
            <Filters filter={filter} onChange={setFilter} search={search} />
            <Switch on={narrow} onSwitch={onNarrow}>
              Narrow{set > 0 && ` · ${set}`} <Key>F</Key>
            </Switch>
            <span className="hidden lg:inline">
              <Switch on={beside} onSwitch={onBeside}>
                Beside <Key>P</Key>
              </Switch>
            </span>
            <Link
              to={acts.besides.to}
              className="inline-flex items-center gap-1.5 text-note font-semibold underline"
            >
              {acts.besides.words} <Key>B</Key>
            </Link>
            <Chooser ref={chooser} />
          </div>
        </>
      )}
    </header>
  );
}

type SwitchProps = { on: boolean; onSwitch: () => void; children: ReactNode };

function Switch({ on, onSwitch, children }: SwitchProps) {
  return (
    <button
      type="button"
      aria-pressed={on}
      onClick={onSwitch}
      className={`rounded inline-flex h-[28px] items-center gap-1.5 border px-2 text-note font-medium ${on ? "border-ink bg-ink text-paper" : "border-line bg-paper hover:border-ridge-2"}`}
    >
      {children}
    </button>
  );
}
