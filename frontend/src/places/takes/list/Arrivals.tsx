import { X } from "lucide-react";
import * as format from "../../../formats";
import { Button } from "../../../ui/Button";
import { Progress } from "../../../ui/Progress";
import { FolderCopyLine, useFolderCopies } from "./FolderCopies";
import { useImports, type Arrival } from "./imports";

/** Files that are being brought in, or could not be. */
export function Arrivals() {
  const { arrivals, drop, again } = useImports();
  const copies = useFolderCopies();
  if (arrivals.length + copies.length === 0) return null;
  return (
    <section aria-label="Arriving" className="border-b border-line bg-paper">
      <ul>
        {copies.map((copy) => (
          <FolderCopyLine key={copy.id} copy={copy} />
        ))}
        {arrivals.map((one) => (
          <li
            key={one.key}
            className="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-line px-4 py-2 sm:flex-nowrap sm:px-8"
          >
            <span className="w-full min-w-0 truncate font-medium sm:w-auto sm:flex-1">
              {one.file.name}
            </span>
            <ArrivalState one={one} />
            {one.state === "failed" && <Button onClick={() => again(one.key)}>Try again</Button>}
            <button
              type="button"
              onClick={() => drop(one.key)}
              aria-label={`${one.state === "failed" ? "Dismiss" : "Cancel"} ${one.file.name}`}
              className="text-stone hover:text-ink"
            >
              <X size={16} />
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function ArrivalState({ one }: { one: Arrival }) {
  if (one.state === "failed") {
    return (
      <span role="alert" className="flex-1 text-note text-ember-deep sm:flex-none">
        {one.error?.message} {one.error?.hint}
      </span>
    );
  }
  return (
    <span className="w-48 flex-1 sm:flex-none">
      <Progress
        value={one.state === "waiting" ? 0 : one.progress}
        label={`Bringing in ${one.file.name}, ${format.fileSize(one.file.size)}`}
      />
    </span>
  );
}
