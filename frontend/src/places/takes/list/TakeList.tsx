import { keptInTab } from "../../../api/browserStore";
import { useWindowVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useLayoutEffect, useRef, useState } from "react";
import type { TakeLine } from "../../../api/client";
import { tellSeen } from "../../../api/takes";
import type { Picks } from "./picks";
import { TakeRow } from "./TakeRow";

const ROW_PX = 76;
/** Where the list was scrolled to, so that a look at a take does not lose the place. */
const SCROLL_KEY = "ridgewind-takes-scroll";

type Props = {
  takes: TakeLine[];
  total: number;
  chosen: number;
  picks: Picks;
  tight: boolean;
  onChoose: (take: TakeLine) => void;
  onPick: (take: TakeLine, stretch: boolean) => void;
  onDelete: (take: TakeLine) => void;
  onNearEnd: () => void;
};

/** The list, however long: only rows in sight are drawn. */
export function TakeList({ takes, total, chosen, picks, onNearEnd, ...row }: Props) {
  const list = useRef<HTMLUListElement>(null);
  const [top, setTop] = useState(0);
  useLayoutEffect(() => setTop(list.current?.offsetTop ?? 0), [total]);
  const rows = useWindowVirtualizer({
    count: takes.length,
    estimateSize: () => ROW_PX,
    overscan: 8,
    scrollMargin: top,
  });
  useEffect(() => {
    const before = Number(keptInTab.get(SCROLL_KEY) ?? 0);
    if (before > 0) window.scrollTo({ top: before });
    const note = () => keptInTab.set(SCROLL_KEY, String(Math.round(window.scrollY)));
    window.addEventListener("scrollend", note);
    return () => window.removeEventListener("scrollend", note);
  }, []);
  const items = rows.getVirtualItems();
  const first = items[0]?.index ?? 0;
  const last = items.at(-1)?.index ?? 0;
  useEffect(() => tellSeen(first, last + 1), [first, last]);
  useEffect(() => {
    if (last >= takes.length - 20 && takes.length < total) onNearEnd();
  }, [last, takes.length, total, onNearEnd]);
  useEffect(() => {
    if (chosen >= 0) rows.scrollToIndex(chosen, { align: "auto" });
    // Only a new choice scrolls; the virtualizer itself changes on every scroll.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [chosen]);
  return (
    <ul ref={list} className="relative" style={{ height: rows.getTotalSize() }}>
      {items.map((item) => {
        const take = takes[item.index];
        return take ? (
          <li
            key={take.id}
            aria-setsize={total}
            aria-posinset={item.index + 1}
            className="absolute inset-x-0"
            style={{ transform: `translateY(${item.start - top}px)` }}
          >
            <TakeRow
              take={take}
              chosen={item.index === chosen}
              picked={picks.has(take.id)}
              {...row}
            />
          </li>
        ) : null;
      })}
    </ul>
  );
}
