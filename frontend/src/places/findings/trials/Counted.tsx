import { Link } from "react-router";
import { useLetIn, type DrillTrial, type TrialTake } from "../../../api/trials";
import * as format from "../../../formats";
import { Button } from "../../../ui/Button";
import { useTelling } from "../../../ui/useTelling";

/** The takes that stay out, and why; each can be let in, and any take let out. */
export function Counted({ trial }: { trial: DrillTrial }) {
  const put = useLetIn();
  const tell = useTelling();
  const out = trial.takes.filter((take) => take.why_out !== "");
  const inside = trial.takes.filter((take) => take.why_out === "");
  const names = Object.fromEntries(trial.sides.map((side) => [side.key, side.name]));
  const letIn = (take: TrialTake, counts: boolean) => {
    const { take_id } = take;
    const sent: { take_id: number; counts: boolean | null } = { take_id, counts };
    tell(put, sent, {
      text: `“${take.name}” ${counts ? "counts" : "stays out"}.`,
      undo: { take_id, counts: take.chosen ? !counts : null },
    });
  };
  const row = (take: TrialTake, counts: boolean) => (
    <li
      key={take.take_id}
      className="grid break-inside-avoid grid-cols-[minmax(0,1fr)_36px_auto] items-baseline gap-x-3 border-t border-line py-1"
    >
      <Link to={`/takes/${take.take_id}`} className="truncate hover:underline">
        {names[take.variation]}
        <span className="text-small text-stone">
          {" "}
          · {take.session}, take {take.place}
          {take.why_out && ` · ${take.why_out}`}
        </span>
      </Link>
      <span className="text-right font-semibold">
        {take.value === null ? "–" : take.value.toFixed(trial.figure.gust ? 1 : 2)}
      </span>
      {take.why_out !== "not measured" && take.why_out !== "alone in its session" && (
        <Button
          look="bare"
          className="px-0! py-0!"
          aria-label={`${counts ? "Leave out" : "Let in"} ${take.name}`}
          onClick={() => letIn(take, !counts)}
        >
          {counts ? "Leave out" : "Let in"}
        </Button>
      )}
    </li>
  );
  return (
    <section aria-label="Takes that count" className="border-t border-line px-4 py-3 sm:px-8">
      {out.length > 0 && (
        <>
          <h2 className="label-wide mb-1">{format.takes(out.length)} stay out</h2>
          <ul className="mb-4 gap-x-10 xl:columns-2">{out.map((take) => row(take, false))}</ul>
        </>
      )}
      <h2 className="label-wide mb-1">{format.takes(inside.length)} count</h2>
      <ul className="gap-x-10 xl:columns-2">{inside.map((take) => row(take, true))}</ul>
    </section>
  );
}
