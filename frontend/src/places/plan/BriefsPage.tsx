import { useEffect } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { useChanged } from "../../api/keys";
import { actOnBrief, addBrief, useBriefs, type BriefItem } from "../../api/kit";
import * as format from "../../formats";
import { Button } from "../../ui/Button";
import { FaultView } from "../../ui/FaultView";
import { Key } from "../../keys/Key";
import { useNotices } from "../../ui/notices";
import { useKeys } from "../../keys/useKeys";
import { BriefEditor } from "./BriefEditor";
import { PlanTabs } from "./PlanTabs";

/** Briefs: what clips must feel like, kept under names that takes point at. */
export function BriefsPage() {
  const found = useBriefs();
  const [search] = useSearchParams();
  const navigate = useNavigate();
  const changed = useChanged();
  const follow = () => changed("verdicts");
  const { fail, notify } = useNotices();
  useEffect(() => {
    document.title = "Briefs · Ridgewind";
  }, []);
  const briefs = found.data?.briefs ?? [];
  const wanted = Number(search.get("brief"));
  const chosen = briefs.find((item) => item.id === wanted) ?? briefs[0];
  const open = (id: number) => void navigate(`/plan/briefs?brief=${id}`, { replace: true });
  const move = (step: number) => {
    const next = briefs[briefs.findIndex((item) => item === chosen) + step];
    if (next) open(next.id);
  };
  const copy = () => {
    if (!chosen) return;
    addBrief({ name: `${chosen.name}, copy`.slice(0, 120), brief: chosen.brief })
      .then((made) => (follow(), open(made.id), notify({ text: `“${made.name}” is kept.` })))
      .catch(fail);
  };
  const use = () => {
    if (!chosen) return;
    const before = briefs.find((item) => item.usual);
    const put = (id: number) => actOnBrief(id, "use").then(follow);
    void put(chosen.id).then(
      () =>
        notify({
          text: `New takes point at “${chosen.name}”.`,
          ...(before && { undo: () => void put(before.id).catch(fail) }),
        }),
      fail,
    );
  };
  useKeys({
    "Choose a brief": { ArrowUp: () => move(-1), ArrowDown: () => move(1) },
    "New from this one": { n: copy },
  });
  if (found.isLoadingError) return <FaultView error={found.error} />;
  if (!chosen) return <p className="p-8 text-stone">Reading the briefs…</p>;
  return (
    <>
      <PlanTabs />
      <header className="flex flex-wrap items-baseline gap-x-4 gap-y-2 border-b border-line px-4 pt-4 pb-3 sm:px-8">
        <h1 className="title text-title leading-tight">Briefs</h1>
        <p className="text-stone">
          What a clip must feel like, and where it will be seen. Takes point at a brief; changing it
          judges them all again. A film that you admire can be one: bring it in, open it, and make
          <i className="not-italic font-medium"> a brief like it</i>.
        </p>
        <div className="ml-auto">
          <Button look="main" onClick={copy}>
            New from this one <Key>N</Key>
          </Button>
        </div>
      </header>
      <div className="grid md:grid-cols-[300px_minmax(0,1fr)]">
        <nav aria-label="Briefs" className="border-line md:border-r">
          <ul>
            {briefs.map((item) => (
              <li key={item.id}>
                <BriefRow item={item} chosen={item === chosen} onOpen={() => open(item.id)} />
              </li>
            ))}
          </ul>
        </nav>
        <BriefEditor key={chosen.id} item={chosen} onCopied={open} onUse={use} />
      </div>
    </>
  );
}

type RowProps = { item: BriefItem; chosen: boolean; onOpen: () => void };

function BriefRow({ item, chosen, onOpen }: RowProps) {
  return (
    <button
      type="button"
      onClick={onOpen}
      aria-current={chosen}
      className={`relative block w-full border-b border-line px-4 py-2.5 text-left sm:px-8 md:pr-4 ${chosen ? "bg-paper" : "hover:bg-paper"}`}
    >
      {chosen && <i className="absolute inset-y-0 left-0 w-1 bg-lamp" />}
      <span className={`block font-semibold ${item.archived ? "text-stone" : ""}`}>
        {item.name}
      </span>
      <span className="block text-small text-stone">
        {format.FEEL_WORDS[item.brief.feel]}, up to {format.gust(item.target)} ·{" "}
        {format.rate(item.brief.delivery_fps)} · {format.takes(item.takes)}
        {item.usual && " · for new takes"}
        {item.typical && " · typical"}
        {item.archived && " · archived"}
      </span>
    </button>
  );
}
