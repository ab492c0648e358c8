import { useMemo, useState } from "react";
import type { TakeLine } from "../../../api/client";
import { inOrder, NONE, stretched, toggled, type Picks } from "./picks";

/** The takes that are picked out of those that are listed. */
export function usePicks(takes: readonly TakeLine[]) {
  const [picks, setPicks] = useState<Picks>(NONE);
  const [last, setLast] = useState<number | null>(null);
  const shown = useMemo(() => takes.map((take) => take.id), [takes]);
  const pick = (id: number, stretch = false) => {
    setPicks(stretch && last !== null ? stretched(picks, shown, last, id) : toggled(picks, id));
    setLast(id);
  };
  return {
    picks,
    ids: useMemo(() => inOrder(picks, shown), [picks, shown]),
    pick,
    pickAll: (ids: readonly number[]) => setPicks(new Set(ids)),
    clear: () => setPicks(NONE),
  };
}
