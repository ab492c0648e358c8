import { useState } from "react";
import { Link } from "react-router";
import type { SetupItem } from "../../../api/kit";
import { Button } from "../../../ui/Button";
import { Key } from "../../../keys/Key";
import { NameDialog } from "../../../ui/NameDialog";
import * as format from "../../../formats";

type Props = {
  item: SetupItem | null;
  name: string;
  changed: boolean;
  blocked: boolean;
  onKeep: () => void;
  onCopy: (name: string) => void;
  onDrop: () => void;
};

/** Keeping a set-up, copying it, and its card. */
export function BenchFoot({ item, name, changed, blocked, onKeep, onCopy, onDrop }: Props) {
  const [naming, setNaming] = useState(false);
  const own = item !== null && !item.typical;
  return (
    <footer className="sticky bottom-0 z-(--layer-bar) mt-auto flex flex-wrap items-center gap-x-3 gap-y-2 border-t border-line bg-paper px-4 py-2.5 sm:px-8">
      <Button look="main" disabled={blocked || (own && !changed)} onClick={onKeep}>
        {own ? "Save" : item ? "Keep as your own" : "Keep this set-up"} <Key>S</Key>
      </Button>
      {changed && <Button onClick={onDrop}>Undo the changes</Button>}
      {own && <Button onClick={() => setNaming(true)}>Save as another</Button>}
      {own &&
        (changed ? (
          <span className="text-note text-stone">Save it to print its card.</span>
        ) : (
          <Link
            to={`/kit/setups/${item.id}/card`}
            className="inline-flex items-center gap-1.5 text-note font-semibold underline hover:text-ridge-4"
          >
            Card to carry <Key>P</Key>
          </Link>
        ))}
      <span className="ml-auto hidden text-note text-stone sm:inline">
        {blocked && changed
          ? "Not kept: something is marked, or it has no name."
          : note(item, changed)}
      </span>
      {naming && (
        <NameDialog
          title="Save as another set-up"
          first={`${name}, copy`}
          act="Save"
          open
          onClose={() => setNaming(false)}
          onName={onCopy}
        />
      )}
    </footer>
  );
}

function note(item: SetupItem | null, changed: boolean): string {
  if (!item) return "Everything can be changed afterwards.";
  if (item.typical) return "Typical, with round figures.";
  if (item.takes === 0) return "No take was filmed with it yet.";
  const verb = item.takes === 1 ? "was" : "were";
  const follow = changed ? "; saving changes them too" : "";
  return `${format.takes(item.takes)} ${verb} filmed with it${follow}.`;
}
