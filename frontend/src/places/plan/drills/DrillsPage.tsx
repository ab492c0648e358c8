import { useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import { useDrills, type DrillItem } from "../../../api/practice";
import { SmallBody } from "../../../body/SmallBody";
import * as format from "../../../formats";
import { FaultView } from "../../../ui/FaultView";
import { useKeys } from "../../../keys/useKeys";
import { PlanTabs } from "../PlanTabs";
import { FAMILY_WORDS } from "../words";

/** The drill library, by family. */
export function DrillsPage() {
  const found = useDrills();
  const [text, setText] = useState("");
  const search = useRef<HTMLInputElement>(null);
  useEffect(() => {
    document.title = "Drills · Ridgewind";
  }, []);
  useKeys({ "Find a drill": { "/": () => search.current?.focus() } });
  if (found.isLoadingError) return <FaultView error={found.error} />;
  const wanted = text.trim().toLowerCase();
  const all = found.data?.drills ?? [];
  const fits = (item: DrillItem) =>
    `${item.drill.name} ${item.drill.purpose} ${item.drill.use}`.toLowerCase().includes(wanted);
  return (
    <>
      <PlanTabs />
      <header className="flex flex-wrap items-center gap-x-4 gap-y-2 px-4 pt-4 pb-3 sm:px-8">
        <h1 className="title text-title leading-tight">Drills</h1>
        <p className="text-stone">
          {all.length}. Each is practised against its plain control, so that the picture decides.
        </p>
        <input
          ref={search}
          type="search"
          aria-label="Find a drill"
          placeholder="Find a drill"
          value={text}
          onChange={(event) => setText(event.target.value)}
          className="rounded ml-auto h-[28px] w-48 border border-control bg-paper px-2 text-note placeholder:text-stone"
        />
      </header>
      {Object.entries(FAMILY_WORDS).map(([family, words]) => {
        const items = all.filter((item) => item.drill.family === family && fits(item));
        return items.length === 0 ? null : (
          <section key={family} aria-label={words} className="border-t border-line">
            <h2 className="label-wide px-4 pt-3 sm:px-8">{words}</h2>
            <ul className="grid pb-2 md:grid-cols-2 md:gap-x-10 md:px-8">
              {items.map((item) => (
                <DrillRow key={item.drill.key} item={item} />
              ))}
            </ul>
          </section>
        );
      })}
    </>
  );
}

function DrillRow({ item }: { item: DrillItem }) {
  const { drill } = item;
  return (
    <li className="relative flex items-center gap-3 border-b border-line px-4 py-1 hover:bg-paper md:px-0">
      <SmallBody drill={drill.key} className="h-[68px] w-[68px]" />
      <div className="min-w-0">
        <Link
          to={`/plan/drills/${drill.key}`}
          className={`font-semibold after:absolute after:inset-0 ${item.archived ? "text-stone" : ""}`}
        >
          {drill.name}
        </Link>
        <p className="text-small text-stone">
          {drill.purpose} {drill.variations.length} ways, passes at {format.gust(drill.target)}
          {!item.shipped && " · your own"}
          {item.archived && " · archived"}
        </p>
      </div>
    </li>
  );
}
