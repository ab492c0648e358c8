import * as format from "../../../formats";
import type { TakeChange, TakeDetail } from "../../../api/client";
import { useChangeTake } from "../../../api/takes";
import { useTelling } from "../../../ui/useTelling";

/** Which part of its film a take is, where it is not all of it. */
export function PartNote({ detail }: { detail: TakeDetail }) {
  const { part } = detail;
  const change = useChangeTake(detail.take.id);
  const tell = useTelling();
  if (!part) return null;
  const { from_s, to_s } = part;
  const judgeWhole = () => {
    tell(change, { whole: true } as TakeChange, {
      text: "All of it is judged.",
      undo: { part: { from_s, to_s } },
    });
  };
  return (
    <p className="px-4 pb-3 text-note sm:px-8">
      <span className="border-l-2 border-lamp pl-3">
        Judged from {format.span(part.from_s, part.to_s)}
        {part.trimmed ? (
          <>
            : its slate and count-in are left out.{" "}
            <button
              type="button"
              className="font-semibold underline hover:text-ridge-4"
              onClick={judgeWhole}
            >
              Judge all of it
            </button>
          </>
        ) : (
          " of a film that holds several takes, split at its slates."
        )}
      </span>
    </p>
  );
}
