import { useCallback, useMemo } from "react";
import { useTakes, type ListFilter } from "../../../api/takes";
import { useRemembered } from "../../../ui/useRemembered";

const NEWEST_FIRST: ListFilter = { sort: "imported", descending: true };

/** The list as it is filtered and ordered, and the take that is chosen in it. */
export function useTakesOfList() {
  const [filter, setFilter] = useRemembered<ListFilter>("takes-filter", NEWEST_FIRST);
  const [chosenId, setChosenId] = useRemembered<number | null>("takes-chosen", null);
  const found = useTakes(filter);
  const takes = useMemo(() => found.data?.pages.flatMap((page) => page.takes) ?? [], [found.data]);
  const { fetchNextPage, isFetchingNextPage } = found;
  const more = useCallback(() => {
    if (!isFetchingNextPage) void fetchNextPage();
  }, [fetchNextPage, isFetchingNextPage]);
  const place = takes.findIndex((take) => take.id === chosenId);
  return {
    filter,
    setFilter,
    takes,
    more,
    first: found.data?.pages[0],
    error: found.isLoadingError ? found.error : null,
    /** Of the chosen take in the list; -1 for none. */
    place,
    chosen: takes[place],
    choose: setChosenId,
    chooseAt: (at: number) => setChosenId(takes.at(at)?.id ?? null),
  };
}

export type TakesOfList = ReturnType<typeof useTakesOfList>;
