import { useNavigate } from "react-router";
import type { TakeLine } from "../../../api/client";
import { idsOf } from "../../../api/many";
import { useNotices } from "../../../ui/notices";
import { CHOICE_WORDS } from "../compare/words";
import { useSettle } from "../compare/useSettle";
import { nextToSettle, sideBySide } from "./picks";
import { useDelete } from "./useDelete";
import { useMany } from "./useMany";
import { usePicks } from "./usePicks";
import type { TakesOfList } from "./useTakesOfList";

export type Choice = keyof typeof CHOICE_WORDS;

/** What can be done from the list: to all that are picked, else to the chosen take. */
export function useListActs(list: TakesOfList) {
  const { takes, place, chosen, chooseAt, choose, filter } = list;
  const { picks, ids, pick, pickAll, clear } = usePicks(takes);
  const many = useMany();
  const settleOne = useSettle();
  const removeOne = useDelete();
  const { fail } = useNotices();
  const navigate = useNavigate();
  const measured = takes.filter((take) => take.gust !== null).map((take) => take.id);
  const several = ids.length > 1;
  const besides = sideBySide(several ? ids : measured);
  const at = (step: number) => Math.max(0, Math.min(takes.length - 1, place + step));
  const removing = (take: TakeLine) => {
    if (take.id === chosen?.id) choose((takes[place + 1] ?? takes[place - 1])?.id ?? null);
    removeOne(take);
  };
  return {
    picks,
    ids,
    many,
    besides,
    pick,
    clear,
    pickAll: () => void idsOf(filter).then(pickAll).catch(fail),
    step: (by: number) => chooseAt(at(by)),
    stretch: (by: number) => {
      const next = takes[at(by)];
      if (!next) return;
      pickAll([...picks, ...(chosen ? [chosen.id] : []), next.id]);
      choose(next.id);
    },
    open: () => chosen && void navigate(`/takes/${chosen.id}`),
    compare: () => void navigate(besides.to),
    removing,
    remove: () => {
      if (ids.length === 0) return chosen && removing(chosen);
      many.change(ids, { deleted: true }, "Deleted");
      clear();
    },
    settle: (choice: Choice) => {
      if (ids.length > 0) return many.change(ids, { choice }, CHOICE_WORDS[choice]);
      if (!chosen) return;
      const again = chosen.choice === choice;
      settleOne(chosen, again ? null : choice);
      if (!again) chooseAt(nextToSettle(takes, place));
    },
    /** What a name is for: the picked takes, else the chosen one. */
    toName: ids.length > 0 ? ids : chosen ? [chosen.id] : [],
  };
}

export type ListActs = ReturnType<typeof useListActs>;
