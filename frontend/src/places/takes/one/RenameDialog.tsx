import type { TakeLine } from "../../../api/client";
import { useChangeTake } from "../../../api/takes";
import { each } from "../../../api/each";
import { NameDialog } from "../../../ui/NameDialog";
import { useNotices } from "../../../ui/notices";

type Props = {
  take: TakeLine;
  onClose: () => void;
};

/** Asks for a take's own name; the last one comes back by undo. */
export function RenameDialog({ take, onClose }: Props) {
  const { notify, fail } = useNotices();
  const change = useChangeTake(take.id);
  /** null: what it is filed under, or its file's name, again. */
  const put = (own_name: string | null) => each(change, { own_name }, { onError: fail });
  const rename = (name: string) => {
    if (name === take.name) return;
    put(name);
    notify({
      text: `Named “${name}”.`,
      undo: () => put(take.named ? take.name : null),
    });
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
