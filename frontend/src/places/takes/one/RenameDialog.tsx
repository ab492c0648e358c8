import type { TakeLine } from "../../../api/client";
import { NameDialog } from "../../../ui/NameDialog";
import { useNotices } from "../../../ui/notices";

type Props = {
  take: TakeLine;
  open: boolean;
  onClose: () => void;
  /** null: what it is filed under, or its file's name, again. */
  onName: (name: string | null) => void;
};

/** Asks for a take's own name; the last one comes back by undo. */
export function RenameDialog({ take, open, onClose, onName }: Props) {
  const { notify } = useNotices();
  const rename = (name: string) => {
    if (name === take.name) return;
    onName(name);
    notify({
      text: `Named “${name}”.`,
      undo: () => onName(take.named ? take.name : null),
    });
  };
  return (
    <NameDialog
      key={String(open)}
      title="Name this take"
      first={take.name}
      act="Name"
      open={open}
      onClose={onClose}
      onName={rename}
    />
  );
}
