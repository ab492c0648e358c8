import * as format from "../../../formats";
import type { TakeDetail } from "../../../api/client";

/** Which part of its film a take is, where it is not all of it. */
export function PartNote({ detail, onWhole }: { detail: TakeDetail; onWhole: () => void }) {
  const { part } = detail;
  if (!part) return null;
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
              onClick={onWhole}
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
