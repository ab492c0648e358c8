import { useState } from "react";
import { useNavigate } from "react-router";
import type { OutingFacts } from "../../api/outings";
import { Button } from "../../ui/Button";
import { Dialog } from "../../ui/Dialog";
import { TextField } from "../../ui/TextField";
import { useArchiveOuting } from "./useArchiveOuting";

type Props = { facts: OutingFacts; onClose: () => void; onKeep: (facts: OutingFacts) => void };

/** Name, place, day and light of an outing. */
export function OutingFactsDialog({ facts, onClose, onKeep }: Props) {
  const [kept, setKept] = useState(facts);
  const archive = useArchiveOuting();
  const navigate = useNavigate();
  const put = (part: Partial<OutingFacts>) => setKept({ ...kept, ...part });
  return (
    <Dialog title="The outing" open onClose={onClose}>
      <form
        className="space-y-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (!kept.name.trim()) return;
          onKeep(kept);
          onClose();
        }}
      >
        <TextField
          label="Name"
          value={kept.name}
          onChange={(name) => put({ name })}
          problem={kept.name.trim() ? undefined : "It needs a name"}
        />
        <TextField label="Place" value={kept.place} onChange={(place) => put({ place })} />
        <label className="block text-small text-stone">
          Day
          <input
            type="date"
            value={kept.day}
            onChange={(event) => put({ day: event.target.value })}
            className="rounded mt-0.5 block h-[30px] border border-line bg-paper px-2 text-note text-ink"
          />
        </label>
        <TextField label="Light" value={kept.light} onChange={(light) => put({ light })} />
        <p className="flex gap-2">
          <Button look="main" type="submit">
            Keep
          </Button>
          <Button
            look="bare"
            onClick={() => {
              archive();
              void navigate("/sequence");
            }}
          >
            Put the outing away
          </Button>
        </p>
      </form>
    </Dialog>
  );
}
