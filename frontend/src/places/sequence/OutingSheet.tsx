import { Printer } from "lucide-react";
import { useEffect } from "react";
import { useNavigate, useParams } from "react-router";
import { useOuting } from "../../api/outings";
import * as format from "../../formats";
import { Key } from "../../keys/Key";
import { useKeys } from "../../keys/useKeys";
import { Button } from "../../ui/Button";
import { FaultView } from "../../ui/FaultView";
import { ShotFrame } from "./ShotFrame";
import { besideFrame } from "./words";

/** An outing on one page, in the order in which to film, with room to tick. */
export function OutingSheet() {
  const id = Number(useParams()["id"]);
  const found = useOuting(id);
  const navigate = useNavigate();
  const back = () => void navigate(`/sequence/${id}`);
  const print = () => window.print();
  const detail = found.data;
  useKeys({ "Print the sheet": { p: print }, "Back to the outing": { Escape: back } });
  useEffect(() => {
    document.title = `Sheet: ${detail?.facts.name ?? ""} · Ridgewind`;
  }, [detail?.facts.name]);
  if (found.isLoadingError) return <FaultView error={found.error} />;
  if (!detail) return <p className="p-8 text-stone">Drawing the sheet…</p>;
  const { facts, shots } = detail;
  const told = [facts.place, facts.day && format.when(facts.day).day, facts.light];
  return (
    <div className="px-4 py-5 sm:px-8 print:p-0">
      <div className="mb-4 flex flex-wrap items-center gap-3 print:hidden">
        <Button look="main" onClick={print}>
          <Printer size={15} aria-hidden /> Print this sheet <Key>P</Key>
        </Button>
        <Button onClick={back}>
          Back to the outing <Key>Esc</Key>
        </Button>
      </div>
      <article
        data-testid="sheet"
        className="max-w-[760px] border border-line bg-paper p-5 print:max-w-none print:border-0 print:p-0"
      >
        <h1 className="title text-title leading-tight">{facts.name}</h1>
        <p className="mb-3 text-note text-stone">
          {[
            ...told.filter(Boolean),
            `${format.counted(shots.length, "shot")} in the order to film`,
          ].join(" · ")}
        </p>
        <ol className="grid grid-cols-2 gap-x-6 gap-y-3">
          {detail.order.map((shotId) => {
            const place = shots.findIndex((one) => one.id === shotId);
            const item = shots[place];
            if (!item) return null;
            const { shot } = item;
            const lines = [shot.size, item.move_words, format.seconds(item.filmed_s)];
            return (
              <li key={shotId} className="flex break-inside-avoid gap-2">
                <ShotFrame shot={shot} className="block w-[112px] flex-none" />
                <p className="min-w-0 text-small leading-snug">
                  <b className="font-semibold">
                    <span className="mr-1 inline-block size-3 border border-ink" aria-hidden />
                    {place + 1} {shot.subject}
                  </b>
                  <br />
                  {[...lines, ...besideFrame(shot)].join(" · ")}
                  {(shot.place || shot.light !== "any") && (
                    <span className="block text-stone">
                      {[shot.place, shot.light === "any" ? "" : shot.light]
                        .filter(Boolean)
                        .join(", ")}
                    </span>
                  )}
                </p>
              </li>
            );
          })}
        </ol>
      </article>
    </div>
  );
}
