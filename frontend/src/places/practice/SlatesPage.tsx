import { useEffect, useState } from "react";
import { useNavigate, useParams } from "react-router";
import { useSession, type SessionDetail } from "../../api/practice";
import { useKeys } from "../../keys/useKeys";
import { FaultView } from "../../ui/FaultView";
import { useAwake } from "./useAwake";
import { useReady } from "./useReady";

/** The codes of a session's takes over the whole screen, one after the other, for any camera. */
export function SlatesPage() {
  const id = Number(useParams()["id"]);
  const found = useSession(id);
  if (found.isLoadingError) return <FaultView error={found.error} />;
  if (!found.data) return <p className="p-8 text-stone">Drawing the slates…</p>;
  return <Slates detail={found.data} />;
}

function Slates({ detail }: { detail: SessionDetail }) {
  const { takes, id, name } = detail.session;
  const navigate = useNavigate();
  const { slates } = useReady(detail);
  const [at, setAt] = useState(() =>
    Math.max(
      0,
      takes.findIndex((take) => take.state === "planned"),
    ),
  );
  const take = takes[at];
  const drill = take && detail.drills[take.drill_key];
  const turn = (by: number) => setAt((now) => Math.min(takes.length - 1, Math.max(0, now + by)));
  useAwake(true);
  useEffect(() => {
    document.title = `Slates: ${name} · Ridgewind`;
  }, [name]);
  useKeys({
    "The next slate": { ArrowRight: () => turn(1), " ": () => turn(1), PageDown: () => turn(1) },
    "The slate before": { ArrowLeft: () => turn(-1), PageUp: () => turn(-1) },
    "Back to the session": { Escape: () => void navigate(`/practice/${id}`) },
  });
  return (
    <div className="fixed inset-0 z-(--layer-page) flex flex-col items-center justify-center bg-[#fff] text-[#000]">
      <h1 className="sr-only">Slates of {name}</h1>
      <button
        type="button"
        onClick={() => turn(1)}
        aria-label="The next slate"
        className="flex min-h-0 flex-1 items-center justify-center self-stretch"
      >
        {slates[at] && (
          <img src={slates[at]} alt={`Code of take ${at + 1}`} className="max-h-full w-[96vmin]" />
        )}
      </button>
      <p className="px-3 text-center text-lead font-semibold" role="status">
        Take {at + 1} of {takes.length}: {drill?.name},{" "}
        {drill?.variations.find((one) => one.key === take?.variation_key)?.name.toLowerCase()}
      </p>
      <p className="flex gap-2 py-2">
        <SlateAct onClick={() => turn(-1)}>Before</SlateAct>
        <SlateAct onClick={() => void navigate(`/practice/${id}`)}>Back</SlateAct>
        <SlateAct onClick={() => turn(1)}>Next</SlateAct>
      </p>
    </div>
  );
}

function SlateAct({ onClick, children }: { onClick: () => void; children: string }) {
  return (
    <button
      type="button"
      onClick={onClick}
      className="rounded min-h-[52px] border border-[#10252b] px-5 text-lead font-semibold"
    >
      {children}
    </button>
  );
}
