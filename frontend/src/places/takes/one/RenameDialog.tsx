import type { TakeChange, TakeLine } from "../../../api/client";
import { useChangeTake } from "../../../api/takes";
import { NameDialog } from "../../../ui/NameDialog";
import { useTelling } from "../../../ui/useTelling";

type Props = {
  take: TakeLine;
  onClose: () => void;
};

/** Asks for a take's own name; the last one comes back by undo. */
export function RenameDialog({ take, onClose }: Props) {
  const tell = useTelling();
  const change = useChangeTake(take.id);
  const rename = (name: string) => {
    if (name === take.name) return;
    // null: what it is filed under, or its file's name, again.
    const before: TakeChange = { own_name: take.named ? take.name : null };
    tell(change, { own_name: name } as TakeChange, { text: `Named “${name}”.`, undo: before });
  };
  return (
    <NameDialog
      title="Name this take"
      first={take.name}
      act="Name"
      open
      onClose={onClose}
      onName={rename}
    />
  );
}
