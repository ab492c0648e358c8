import { Printer } from "lucide-react";
import { useEffect } from "react";
import { useNavigate, useParams } from "react-router";
import { useSession, type Block, type Drill, type SessionDetail } from "../../api/practice";
import { StillBody } from "../../body/StillBody";
import * as format from "../../formats";
import { Key } from "../../keys/Key";
import { useKeys } from "../../keys/useKeys";
import { Button } from "../../ui/Button";
import { FaultView } from "../../ui/FaultView";

/** A session on paper, to be practised where no screen is: each drill drawn, and room for notes. */
export function SheetPage() {
  const id = Number(useParams()["id"]);
  const found = useSession(id);
  const navigate = useNavigate();
  const print = () => window.print();
  const name = found.data?.session.name ?? "";
  useKeys({
    "Print the sheet": { p: print },
    "Back to the session": { Escape: () => void navigate(`/practice/${id}`) },
  });
  useEffect(() => {
    document.title = `Sheet: ${name} · Ridgewind`;
  }, [name]);
  if (found.isLoadingError) return <FaultView error={found.error} />;
  if (!found.data) return <p className="p-8 text-stone">Drawing the sheet…</p>;
  return (
    <div className="px-4 py-5 sm:px-8 print:p-0">
      <div className="mb-4 flex flex-wrap items-center gap-3 print:hidden">
        <Button look="main" onClick={print}>
          <Printer size={15} aria-hidden /> Print this sheet <Key>P</Key>
        </Button>
        <Button onClick={() => void navigate(`/practice/${id}`)}>
          Back to the session <Key>Esc</Key>
        </Button>
        <span className="text-note text-stone">A5 or larger; a drill is never cut in two.</span>
      </div>
      <Sheet detail={found.data} />
    </div>
  );
}

function Sheet({ detail }: { detail: SessionDetail }) {
  const { plan, name, made_at } = detail.session;
  return (
    <article
      data-testid="sheet"
      className="max-w-[720px] border border-line bg-paper p-5 print:max-w-none print:border-0 print:p-0"
    >
      <h1 className="title text-title leading-tight">{name}</h1>
      <p className="text-note text-stone">
        {format.when(made_at).day} · {Math.round(plan.total_s / 60)} minutes ·{" "}
        {format.takes(detail.session.takes.length)}
      </p>
      <ul className="mt-2 mb-3">
        {plan.cautions.map((caution) => (
          <li key={caution} className="border-l-2 border-lamp pl-2 text-note">
            {caution}
          </li>
        ))}
      </ul>
      {plan.blocks.map((block, at) => {
        const drill = detail.drills[block.drill_key];
        return drill && <BlockOnPaper key={at} block={block} drill={drill} />;
      })}
      <p className="border-t border-line pt-2 text-small text-stone">
        General information only. Stop with pain, numbness or dizziness.
      </p>
    </article>
  );
}

function BlockOnPaper({ block, drill }: { block: Block; drill: Drill }) {
  const nameOf = (key: string) => drill.variations.find((one) => one.key === key)?.name ?? key;
  return (
    <section className="break-inside-avoid border-t border-line py-3">
      <h2 className="text-large font-semibold">{drill.name}</h2>
      <p className="text-note text-stone">
        {drill.purpose} {format.seconds(block.take_s)} a take, {format.seconds(block.rest_s)} of
        rest; passes at gust {format.gust(drill.target)}.
      </p>
      <div className="mt-1 grid gap-x-4 sm:grid-cols-[150px_minmax(0,1fr)] print:grid-cols-[32mm_minmax(0,1fr)]">
        <StillBody drill={drill.key} variation={null} className="h-[190px] print:h-[42mm]" />
        <div>
          <ol className="list-decimal pl-5 text-note">
            {drill.set_up.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ol>
          <p className="mt-1 text-note font-medium">{drill.move}</p>
          <table className="mt-1.5 w-full text-note">
            <thead>
              <tr className="text-left text-small text-stone">
                <th className="font-normal">take</th>
                <th className="font-normal">way</th>
                <th className="font-normal">felt</th>
                <th className="font-normal">tired 1–5</th>
              </tr>
            </thead>
            <tbody>
              {block.order.map((key, k) => (
                <tr key={k} className="border-t border-line">
                  <td className="w-8 py-0.5">{k + 1}</td>
                  <td>{nameOf(key)}</td>
                  <td className="w-14" />
                  <td className="w-20" />
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </div>
    </section>
  );
}
