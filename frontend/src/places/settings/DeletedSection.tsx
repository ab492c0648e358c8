import { useDeleted } from "../../api/settings";
import { useTakeAct } from "../../api/takes";
import { each } from "../../api/each";
import * as format from "../../formats";
import { Button } from "../../ui/Button";
import { FaultView } from "../../ui/FaultView";
import { useNotices } from "../../ui/notices";

/** Deleted takes, which can be brought back for a week. */
export function DeletedSection() {
  const found = useDeleted();
  const act = useTakeAct();
  const { fail } = useNotices();
  if (found.isLoadingError) return <FaultView error={found.error} />;
  if (!found.data) return null;
  const { takes } = found.data;
  return (
    <section aria-label="Deleted takes" className="border-b border-line px-4 py-4 sm:px-8">
      <h2 className="title text-heading">Deleted takes</h2>
      <p className="max-w-[720px] text-note text-stone">
        {takes.length === 0
          ? "None. A deleted take stands here for a week, and can be brought back."
          : "They can be brought back for a week after they were deleted."}
      </p>
      {takes.length > 0 && (
        <ul className="mt-3 max-w-[720px] border-t border-line">
          {takes.map((take) => (
            <li
              key={take.take_id}
              className="flex items-center gap-4 border-b border-line py-1.5 text-note"
            >
              <span className="min-w-0 flex-1 truncate font-semibold">{take.name}</span>
              <span className="text-stone">until {format.when(take.gone_on).day}</span>
              <Button
                look="bare"
                aria-label={`Bring back ${take.name}`}
                onClick={() => each(act, { act: "restore", id: take.take_id }, { onError: fail })}
              >
                Bring back
              </Button>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
