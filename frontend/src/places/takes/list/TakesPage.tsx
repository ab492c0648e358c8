import { useCallback, useEffect, useMemo, useRef } from "react";
import { Link, useNavigate } from "react-router";
import type { TakeLine } from "../../../api/client";
import { useTakes, type ListFilter } from "../../../api/takes";
import { FaultView } from "../../../ui/FaultView";
import { useRemembered } from "../../../ui/useRemembered";
import { Key } from "../../../keys/Key";
import { useKeys } from "../../../keys/useKeys";
import { Arrivals } from "./Arrivals";
import { Chooser, type ChooserHandle } from "./Chooser";
import { EmptyTakes } from "./EmptyTakes";
import { Filters } from "./Filters";
import { TakeList } from "./TakeList";
import { useDelete } from "./useDelete";

const NEWEST_FIRST: ListFilter = { sort: "imported", descending: true };
/** Takes that can be looked at side by side. */
const MOST_BESIDES = 24;

/** The takes of the library, newest first, and the way in for new ones. */
export function TakesPage() {
  const [filter, setFilter] = useRemembered<ListFilter>("takes-filter", NEWEST_FIRST);
  const [chosenId, setChosenId] = useRemembered<number | null>("takes-chosen", null);
  const found = useTakes(filter);
  const remove = useDelete();
  const navigate = useNavigate();
  const chooser = useRef<ChooserHandle>(null);
  const search = useRef<HTMLInputElement>(null);
  const takes = useMemo(() => found.data?.pages.flatMap((page) => page.takes) ?? [], [found.data]);
  const first = found.data?.pages[0];
  const chosen = takes.findIndex((take) => take.id === chosenId);
  const chosenTake = takes[chosen];
  useEffect(() => {
    document.title = "Takes · Ridgewind";
  }, []);

  const besides = `/takes/compare?takes=${takes
    .filter((take) => take.gust !== null)
    .slice(0, MOST_BESIDES)
    .map((take) => take.id)
    .join(",")}`;
  const chooseAt = (place: number) => setChosenId(takes.at(place)?.id ?? null);
  const choose = (step: number) => chooseAt(Math.max(0, Math.min(takes.length - 1, chosen + step)));
  const removeChosen = (take: TakeLine) => {
    if (take.id === chosenId) setChosenId((takes[chosen + 1] ?? takes[chosen - 1])?.id ?? null);
    remove(take);
  };
  useKeys({
    "Bring clips in": { i: () => chooser.current?.open() },
    "Choose a take": { ArrowUp: () => choose(-1), ArrowDown: () => choose(1) },
    "First or last take": { Home: () => chooseAt(0), End: () => chooseAt(-1) },
    "Open it": { Enter: () => chosenTake && void navigate(`/takes/${chosenTake.id}`) },
    "Side by side": { b: () => void navigate(besides) },
    "Delete it": { Delete: () => chosenTake && removeChosen(chosenTake) },
    "Find by name": { "/": () => search.current?.focus() },
  });
  const { fetchNextPage, isFetchingNextPage } = found;
  const more = useCallback(() => {
    if (!isFetchingNextPage) void fetchNextPage();
  }, [fetchNextPage, isFetchingNextPage]);

  return (
    <>
      <header className="flex flex-wrap items-center gap-x-4 gap-y-3 border-b border-line px-4 pt-4 pb-3 sm:px-8">
        <h1 className="title text-title leading-tight">Takes</h1>
        {first && first.all > 0 && (
          <>
            <p className="text-stone" aria-live="polite">
              {first.total === first.all ? `${first.all}` : `${first.total} of ${first.all}`}
              {first.busy > 0 && `, ${first.busy} to measure`}
            </p>
            <div className="flex flex-wrap items-center gap-3 sm:ml-auto">
              <Filters filter={filter} onChange={setFilter} search={search} />
              <Link
                to={besides}
                className="inline-flex items-center gap-1.5 text-note font-semibold underline"
              >
                {(first?.total ?? 0) > MOST_BESIDES ? `First ${MOST_BESIDES} side` : "Side"} by side{" "}
                <Key>B</Key>
              </Link>
              <Chooser ref={chooser} />
            </div>
          </>
        )}
      </header>
      <Arrivals />
      {found.isLoadingError && <FaultView error={found.error} />}
      {first?.all === 0 && <EmptyTakes />}
      {first && first.all > 0 && takes.length === 0 && (
        <p className="p-8 text-stone">
          No take fits these filters. Choose “Every verdict” and “Every feel” to see all.
        </p>
      )}
      {takes.length > 0 && (
        <TakeList
          takes={takes}
          total={first?.total ?? 0}
          chosen={chosen}
          onDelete={removeChosen}
          onNearEnd={more}
        />
      )}
    </>
  );
}
