import { useEffect, useState } from "react";
import { Link, useNavigate } from "react-router";
import { useMark } from "../../../api/decisions";
import { useBlindOrder } from "../../../api/eye";
import { each } from "../../../api/each";
import { Button } from "../../../ui/Button";
import { FaultView } from "../../../ui/FaultView";
import { Key } from "../../../keys/Key";
import { LoopedFilm } from "../../../ui/LoopedFilm";
import { useNotices } from "../../../ui/notices";
import { useKeys } from "../../../keys/useKeys";

/** Takes in an order that tells nothing, without name or number: smooth enough, or not? */
export function BlindPage() {
  const [seed] = useState(() => Math.floor(Math.random() * 2 ** 31));
  const order = useBlindOrder(seed);
  const [at, setAt] = useState(0);
  const mark = useMark();
  const { notify, fail } = useNotices();
  const navigate = useNavigate();
  const ids = order.data?.takes ?? [];
  const shown = ids[at];
  const id = shown?.take_id;
  useEffect(() => {
    document.title = "Blind marking · Ridgewind";
  }, []);
  const put = (smooth: boolean) => {
    if (id === undefined) return;
    const place = at;
    each(
      mark,
      { id, smooth, blind: true },
      {
        onError: fail,
        onSuccess: () =>
          notify({
            text: smooth ? "Marked smooth enough." : "Marked not smooth.",
            undo: () => {
              each(mark, { id, smooth: null }, { onError: fail });
              setAt(place);
            },
          }),
      },
    );
    setAt(at + 1);
  };
  useKeys({
    "Smooth enough, or not": { y: () => put(true), n: () => put(false) },
    "Back, or leave it": {
      ArrowLeft: () => setAt((now) => Math.max(0, now - 1)),
      ArrowRight: () => setAt((now) => Math.min(now + 1, ids.length)),
    },
    Stop: { Escape: () => void navigate("/findings/eye") },
  });
  if (order.isLoadingError) return <FaultView error={order.error} />;
  if (!order.data) return <p className="p-8 text-stone">Shuffling the takes…</p>;
  if (id === undefined) {
    return (
      <div className="p-8" data-testid="blind-done">
        <h1 className="title mb-1 text-title">
          {ids.length === 0 ? "Nothing to mark" : "That was the last one"}
        </h1>
        <p className="text-stone">
          {ids.length === 0 ? "Every measured take has a mark. " : ""}
          <Link to="/findings/eye" className="font-semibold underline">
            See what your eye says
          </Link>
        </p>
      </div>
    );
  }
  return (
    <section aria-label="Blind marking" className="mx-auto max-w-[1040px] px-4 py-5 sm:px-8">
      <header className="mb-3 flex flex-wrap items-baseline gap-x-4">
        <h1 className="title text-title leading-tight">Smooth enough?</h1>
        <p className="text-stone" aria-live="polite">
          {at + 1} of {ids.length}, numbers hidden
        </p>
      </header>
      <LoopedFilm
        src={`/api/takes/${id}/film`}
        from={shown?.from_s ?? 0}
        to={shown?.to_s ?? null}
        playing
        label="A take, its name hidden"
        testId="blind-film"
        className="rounded aspect-video max-h-[68vh] w-full bg-ridge-5 object-contain"
      />
      <div className="mt-3 flex flex-wrap gap-2">
        <Button look="main" onClick={() => put(true)}>
          Smooth enough <Key>Y</Key>
        </Button>
        <Button onClick={() => put(false)}>
          Not smooth <Key>N</Key>
        </Button>
        <Button look="bare" onClick={() => setAt(at + 1)}>
          Leave it <Key>→</Key>
        </Button>
        <span className="ml-auto">
          <Button look="bare" onClick={() => void navigate("/findings/eye")}>
            Stop <Key>Esc</Key>
          </Button>
        </span>
      </div>
    </section>
  );
}
