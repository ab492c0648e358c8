import { Button } from "./Button";
import { useNotices } from "./notices";

type Props = {
  name: string;
  archived: boolean;
  /** Put it away, or bring it back. */
  act: (act: "archive" | "restore") => Promise<unknown>;
  onChanged: () => void;
  /** One of several on a page: its name is read out with it. */
  among?: boolean;
};

/** Puts a thing away, or brings it back; either can be undone. */
export function ArchiveButton({ name, archived, act, onChanged, among = false }: Props) {
  const { notify, fail } = useNotices();
  const words = archived ? "Bring back" : "Archive";
  const send = (away: boolean) =>
    act(away ? "archive" : "restore")
      .then(() => {
        onChanged();
        notify({
          text: `“${name}” is ${away ? "archived" : "back"}.`,
          undo: () => void act(away ? "restore" : "archive").then(onChanged, fail),
        });
      })
      .catch(fail);
  return (
    <Button
      look="bare"
      aria-label={among ? `${words} ${name}` : undefined}
      onClick={() => void send(!archived)}
    >
      {words}
    </Button>
  );
}
