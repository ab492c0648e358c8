import { lazy, Suspense, useEffect, useRef, useState } from "react";
import { Button } from "../../../ui/Button";
import { FaultView } from "../../../ui/FaultView";
import { useRemembered } from "../../../ui/useRemembered";
import { useHasRoom } from "./useHasRoom";
import { useKeys } from "../../../keys/useKeys";
import { Arrivals } from "./Arrivals";
import { ChosenSaid } from "./ChosenSaid";
import type { ChooserHandle } from "./Chooser";
import { EmptyTakes } from "./EmptyTakes";
import { ListHead } from "./ListHead";
import { TakeList } from "./TakeList";
import { useListActs } from "./useListActs";
import { useTakesOfList } from "./useTakesOfList";

/** What opens on demand is loaded then, so that the first visit is quick. */
const NameDialog = lazy(() =>
  import("../../../ui/NameDialog").then((room) => ({ default: room.NameDialog })),
);
const Beside = lazy(() => import("./Beside").then((room) => ({ default: room.Beside })));
const Narrow = lazy(() => import("./Narrow").then((room) => ({ default: room.Narrow })));
const PickedBar = lazy(() => import("./PickedBar").then((room) => ({ default: room.PickedBar })));

/** The takes of the library, what can be done with many of them, and the way in for new ones. */
export function TakesPage() {
  const list = useTakesOfList();
  const acts = useListActs(list);
  const { takes, first, filter, setFilter, chosen } = list;
  const { ids } = acts;
  const [narrow, setNarrow] = useRemembered("takes-narrow", false);
  const [beside, setBeside] = useRemembered("takes-beside", false);
  const [playing, setPlaying] = useState(false);
  const [naming, setNaming] = useState(false);
  const chooser = useRef<ChooserHandle>(null);
  const search = useRef<HTMLInputElement>(null);
  useEffect(() => {
    document.title = "Takes · Ridgewind";
  }, []);
  useKeys({
    "Bring clips in": { i: () => chooser.current?.open() },
    "Choose a take": { ArrowUp: () => acts.step(-1), ArrowDown: () => acts.step(1) },
    "First or last take": { Home: () => list.chooseAt(0), End: () => list.chooseAt(-1) },
    "Open it": { Enter: acts.open },
    "Pick it, or leave it out": { c: () => chosen && acts.pick(chosen.id) },
    "Pick several": {
      "Shift+ArrowUp": () => acts.stretch(-1),
      "Shift+ArrowDown": () => acts.stretch(1),
    },
    "Pick every take that is listed": { e: acts.pickAll },
    "Leave all of them out again": { Escape: acts.clear },
    Keep: { k: () => acts.settle("keep") },
    Reject: { d: () => acts.settle("reject") },
    "Film again": { a: () => acts.settle("retake") },
    Rename: { r: () => acts.toName.length > 0 && setNaming(true) },
    "Side by side": { b: acts.compare },
    Delete: { Delete: acts.remove },
    "Play the chosen take beside the list": { p: () => setBeside(!beside) },
    "Find by name": { "/": () => search.current?.focus() },
    "Narrow the list": { f: () => setNarrow(!narrow) },
  });
  useKeys(beside ? { "Play or pause": { " ": () => setPlaying((now) => !now) } } : {});
  const room = useHasRoom();
  const shown = beside && room && chosen !== undefined;
  const some = first !== undefined && first.all > 0;
  const named = takes.find((take) => take.id === acts.toName[0]);

  return (
    <>
      <ListHead
        list={list}
        acts={acts}
        narrow={narrow}
        onNarrow={() => setNarrow(!narrow)}
        beside={beside}
        onBeside={() => setBeside(!beside)}
        search={search}
        chooser={chooser}
      />
      <Suspense>
        {narrow && some && <Narrow filter={filter} onChange={setFilter} />}
        {ids.length > 0 && (
          <PickedBar acts={acts} total={first?.total ?? 0} onName={() => setNaming(true)} />
        )}
        {naming && (
          <NameDialog
            title={acts.toName.length > 1 ? "Name all of them, numbered" : "Name this take"}
            first={acts.toName.length > 1 ? "" : (named?.name ?? "")}
            act="Name"
            open
            onClose={() => setNaming(false)}
            onName={(name) => acts.many.change(acts.toName, { name }, "Named")}
          />
        )}
      </Suspense>
      <ChosenSaid
        take={chosen}
        place={list.place}
        total={first?.total ?? 0}
        picked={chosen !== undefined && acts.picks.has(chosen.id)}
      />
      <Arrivals />
      {list.error && <FaultView error={list.error} />}
      {first?.all === 0 && <EmptyTakes />}
      {some && takes.length === 0 && (
        <p className="flex flex-wrap items-center gap-3 p-8 text-stone">
          No take fits these filters.
          <Button onClick={() => setFilter({ sort: filter.sort, descending: filter.descending })}>
            See all
          </Button>
        </p>
      )}
      {takes.length > 0 && (
        <div className={shown ? "lg:grid lg:grid-cols-[minmax(0,1fr)_360px]" : ""}>
          <TakeList
            takes={takes}
            total={first?.total ?? 0}
            chosen={list.place}
            picks={acts.picks}
            tight={shown}
            onChoose={(take) => list.choose(take.id)}
            onPick={(take, several) => acts.pick(take.id, several)}
            onDelete={acts.removing}
            onNearEnd={list.more}
          />
          <Suspense>
            {shown && <Beside take={chosen} playing={playing} onPlaying={setPlaying} />}
          </Suspense>
        </div>
      )}
    </>
  );
}
