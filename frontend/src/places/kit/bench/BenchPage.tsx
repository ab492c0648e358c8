import { useEffect, useRef, useState } from "react";
import { useNavigate, useParams, useSearchParams } from "react-router";
import { useChanged } from "../../../api/keys";
import {
  saveSetup,
  useBench,
  useKit,
  type Bench,
  type Kit,
  type SetupAsk,
  type SetupItem,
} from "../../../api/kit";
import { FaultView } from "../../../ui/FaultView";
import { useNotices } from "../../../ui/notices";
import { Elsewhere } from "../../../ui/Elsewhere";
import { useDraft } from "../../../ui/useDraft";
import { useSave } from "../../../ui/useSave";
import * as format from "../../../formats";
import { useKeys } from "../../../keys/useKeys";
import { BenchFoot } from "./BenchFoot";
import { BenchPanel, PANELS } from "./BenchPanel";
import { PanelTabs } from "./PanelTabs";
import { problemIn, type PanelName } from "./panel";
import { SetupHead } from "./SetupHead";

/** A set-up on the bench: what it is made of, and its arithmetic drawn. */
export function BenchPage() {
  const { id } = useParams();
  const found = useKit();
  if (found.isLoadingError) return <FaultView error={found.error} />;
  if (!found.data) return <p className="p-8 text-stone">Reading the kit…</p>;
  const kit = found.data;
  const fresh = id === "new";
  const item = kit.setups.find((one) => (fresh ? one.usual : String(one.id) === id));
  if (!item) return <p className="p-8">There is no such set-up. Go back to the kit.</p>;
  return <LoadedBench key={id} kit={kit} item={item} fresh={fresh} />;
}

/** The part of a set-up that is kept. */
export function askOf(item: SetupItem): SetupAsk {
  const { name, camera_id, lens_id, support_ids, optics, bench } = item;
  return { name, camera_id, lens_id, support_ids, optics, bench };
}

function LoadedBench({ kit, item, fresh }: { kit: Kit; item: SetupItem; fresh: boolean }) {
  const kept = fresh ? { ...askOf(item), name: "" } : askOf(item);
  const draft = useDraft(`setup-${fresh ? "new" : item.id}`, kept);
  const [briefId, setBriefId] = useState<number | null>(null);
  const { save: send, problem, forget } = useSave();
  const [search, setSearch] = useSearchParams();
  const navigate = useNavigate();
  const changed = useChanged();
  const { notify, fail } = useNotices();
  const setup = draft.value;
  const panel = (PANELS.find((one) => one.name === search.get("panel")) ?? PANELS[0]).name;
  // The address follows too late for keys in quick succession.
  const asked = useRef<PanelName>(panel);
  const setPanel = (name: PanelName) => {
    asked.current = name;
    setSearch({ panel: name }, { replace: true });
  };
  const bench = useBench({ setup: { ...setup, name: setup.name || "new" }, setupId: fresh ? 0 : item.id, briefId }); // prettier-ignore
  useEffect(() => {
    document.title = `${setup.name || "New set-up"} · Ridgewind`;
  }, [setup.name]);

  const own = !fresh && !item.typical;
  const save = (id: number | null, name: string, base: SetupAsk | null = draft.base) => {
    void send(
      // Whether it was kept or refused: what is kept now is to be seen.
      () => saveSetup(id, { ...setup, name }, base).finally(() => changed("kit")),
      (made) => {
        draft.drop();
        const undo = () => void saveSetup(item.id, kept).then(() => changed("kit"), fail);
        const follow = item.takes === 1 ? "follows" : "follow";
        notify({
          text: `“${made.name}” is kept.`,
          hint: id && item.takes > 0 ? `${format.takes(item.takes)} filmed with it ${follow}.` : undefined, // prettier-ignore
          ...(id ? { undo } : {}),
        });
        if (!id) void navigate(`/kit/setups/${made.id}?panel=${panel}`, { replace: fresh });
      },
    );
  };
  const keep = () => {
    if (own && !draft.changed) return;
    const name = item.typical && setup.name === item.name ? `${setup.name}, mine` : setup.name;
    save(own ? item.id : null, name);
  };
  const turn = (step: number) => {
    const at = PANELS.findIndex((one) => one.name === asked.current);
    const next = PANELS[(at + step + PANELS.length) % PANELS.length];
    if (next) setPanel(next.name);
  };
  useKeys({
    "Panel before or after": { ",": () => turn(-1), ".": () => turn(1) },
    Save: { s: keep },
    "Card to carry": {
      p: () => own && !draft.changed && void navigate(`/kit/setups/${item.id}/card`),
    },
    "Back to the kit": { Escape: () => void navigate("/kit") },
  });
  const problems = bench.data?.problems ?? [];
  const nameProblem = problem("name") && "It needs a name";
  const change = (part: Partial<SetupAsk>) => {
    forget();
    draft.change({ ...setup, ...part });
  };
  return (
    <div className="flex min-h-[calc(100dvh-var(--trail))] flex-col">
      <SetupHead
        kit={kit}
        setup={setup}
        item={fresh ? null : item}
        change={change}
        briefId={briefId}
        onBrief={setBriefId}
        nameProblem={nameProblem}
        problem={(field) => problemIn(problems, "optics", field)}
      />
      {bench.error && <FaultView error={bench.error} />}
      {own && draft.elsewhere && (
        <Elsewhere
          what="set-up"
          mine={setup}
          other={kept}
          onMine={() => save(item.id, setup.name, null)}
          onOther={draft.drop}
        />
      )}
      {bench.data && (
        <PanelTabs answer={bench.data} panel={panel} onPanel={setPanel}>
          <BenchPanel
            panel={panel}
            query={{ setup, setupId: fresh ? 0 : item.id, briefId }}
            setup={setup}
            answer={bench.data}
            late={bench.isPlaceholderData}
            kit={kit}
            change={(part: Partial<Bench>) => change({ bench: { ...setup.bench, ...part } })}
            problem={(field) => problemIn(problems, panel, field)}
            onNoSupport={(id) =>
              change({ support_ids: setup.support_ids.filter((one) => one !== id) })
            }
            onSupport={(id, rig) =>
              change({
                support_ids: [...setup.support_ids, id],
                bench: { ...setup.bench, rig },
              })
            }
          />
        </PanelTabs>
      )}
      <BenchFoot
        item={fresh ? null : item}
        changed={draft.changed}
        blocked={problems.length > 0 || !setup.name.trim()}
        onKeep={keep}
        onCopy={(name) => save(null, name)}
        onDrop={draft.drop}
        name={setup.name}
      />
    </div>
  );
}
