import type { ReactNode } from "react";
import { Link } from "react-router";
import { useBriefs, useKit } from "../../../api/kit";
import * as format from "../../../formats";
import { Key } from "../../../keys/Key";
import { Button } from "../../../ui/Button";
import { Select } from "../../../ui/Select";
import type { ListActs } from "./useListActs";
import type { Many } from "./useMany";

const RATES = [24, 25, 30, 48, 50, 60, 100, 120, 240];

type Props = { acts: ListActs; total: number; onName: () => void };

/** What can be done with the picked takes. */
export function PickedBar({ acts, total, onName }: Props) {
  const { ids, many, besides } = acts;
  return (
    <section
      aria-label="Picked takes"
      className="sticky top-0 z-(--layer-bar) flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-ridge-2 bg-paper px-4 py-2 sm:px-8"
    >
      <p className="font-semibold" role="status">
        <span className="figure-narrow text-large">{ids.length}</span> picked
      </p>
      {ids.length < total && (
        <button type="button" onClick={acts.pickAll} className="text-note underline">
          All {total} <Key>E</Key>
        </button>
      )}
      <button type="button" onClick={acts.clear} className="text-note underline">
        None <Key>Esc</Key>
      </button>
      <Several>
        <Button onClick={() => acts.settle("keep")}>
          Keep <Key>K</Key>
        </Button>
        <Button onClick={() => acts.settle("reject")}>
          Reject <Key>D</Key>
        </Button>
        <Button onClick={() => acts.settle("retake")}>
          Again <Key>A</Key>
        </Button>
      </Several>
      <Several>
        <Pointing ids={ids} many={many} />
        <Button look="bare" onClick={onName}>
          Name <Key>R</Key>
        </Button>
      </Several>
      <Several>
        {ids.length > 1 && (
          <>
            <Link to={besides.to} className="text-note font-semibold underline">
              {besides.words} <Key>B</Key>
            </Link>
            <Link
              to={`/findings/picked?takes=${ids.join(",")}`}
              className="text-note font-semibold underline"
            >
              As a trial
            </Link>
          </>
        )}
        <Button look="bare" onClick={() => many.renderAll(ids)}>
          Render
        </Button>
        <Button look="bare" onClick={() => many.save(ids, "csv")}>
          CSV
        </Button>
        <Button look="bare" onClick={() => many.save(ids, "json")}>
          JSON
        </Button>
        <Button look="bare" onClick={acts.remove}>
          Delete <Key>Delete</Key>
        </Button>
      </Several>
    </section>
  );
}

function Several({ children }: { children: ReactNode }) {
  return <div className="flex flex-wrap items-center gap-1.5">{children}</div>;
}

/** What the picked takes point at: brief, set-up, and the rate at which they were filmed. */
function Pointing({ ids, many }: { ids: number[]; many: Many }) {
  const briefs = useBriefs().data?.briefs.filter((one) => !one.archived) ?? [];
  const setups = useKit().data?.setups.filter((one) => !one.archived) ?? [];
  const pick = (of: { id: number; name: string }[], words: string) => [
    { value: "", words },
    ...of.map((one) => ({ value: String(one.id), words: one.name })),
  ];
  const rates = [
    { value: "", words: "Filmed at…" },
    { value: "file", words: "As the file says" },
    ...RATES.map((rate) => ({ value: String(rate), words: format.rate(rate) })),
  ];
  return (
    <>
      <Select
        label="Brief of the picked takes"
        value=""
        options={pick(briefs, "Brief…")}
        onChange={(id) => id && many.change(ids, { brief_id: Number(id) }, "Another brief")}
      />
      <Select
        label="Set-up of the picked takes"
        value=""
        options={pick(setups, "Set-up…")}
        onChange={(id) => id && many.change(ids, { setup_id: Number(id) }, "Another set-up")}
      />
      <Select
        label="Filmed at how many frames a second"
        value=""
        options={rates}
        onChange={(rate) =>
          rate &&
          many.change(
            ids,
            { own_capture_fps: rate === "file" ? null : Number(rate) },
            rate === "file" ? "Rate as the file says" : `Filmed at ${format.rate(Number(rate))}`,
          )
        }
      />
    </>
  );
}
