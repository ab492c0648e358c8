import { useState, type FormEvent } from "react";
import { useNavigate } from "react-router";
import type { TakeDetail } from "../../../api/client";
import { putBack, useLikeIt } from "../../../api/examples";
import { useChanged } from "../../../api/keys";
import * as format from "../../../formats";
import { Button } from "../../../ui/Button";
import { Dialog } from "../../../ui/Dialog";
import { useNotices } from "../../../ui/notices";
import { TextField } from "../../../ui/TextField";
import { Toggle } from "../../../ui/Toggle";

type Props = { take: TakeDetail["take"]; part: TakeDetail["part"]; onClose: () => void };

/** Makes what a film shows the feel of a brief; the brief is archived again by undo. */
export function LikeItDialog({ take, part, onClose }: Props) {
  const [name, setName] = useState(`Like ${take.name}`.slice(0, 120));
  const [example, setExample] = useState(!take.filed);
  const make = useLikeIt();
  const changed = useChanged();
  const navigate = useNavigate();
  const { notify, fail } = useNotices();
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!name.trim() || make.isPending) return;
    make.mutate(
      { take_id: take.id, name: name.trim(), is_own: !example },
      {
        onError: fail,
        onSuccess: (made) => {
          onClose();
          notify({
            text: `“${name.trim()}” allows gust ${format.gust(made.target)}.`,
            hint: example ? "Its film is an example now, no take of yours." : undefined,
            undo: () =>
              void putBack(take.id, made)
                .then(() => changed("many"))
                .catch(fail),
          });
          void navigate(`/plan/briefs?brief=${made.brief_id}`);
        },
      },
    );
  };
  return (
    <Dialog title="A brief like it" open onClose={onClose}>
      <form onSubmit={submit} className="space-y-4">
        <p className="text-stone">
          The gust of{" "}
          {part ? `what ${format.span(part.from_s, part.to_s)} of it show` : "all of it"} becomes
          what a brief allows; its kinds of shake and its move are what takes are held against.
        </p>
        <TextField
          label="Name"
          value={name}
          onChange={setName}
          problem={name.trim() ? undefined : "It needs a name"}
        />
        <Toggle
          label="It is somebody else’s film: an example, no take of mine"
          on={example}
          onChange={setExample}
        />
        <Button look="main" type="submit" disabled={make.isPending}>
          Make the brief
        </Button>
      </form>
    </Dialog>
  );
}
