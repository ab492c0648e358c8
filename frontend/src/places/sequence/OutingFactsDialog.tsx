import { useState } from "react";
import { useNavigate } from "react-router";
import type { OutingFacts } from "../../api/outings";
import { useBriefs, useKit } from "../../api/kit";
import { Button } from "../../ui/Button";
import { Dialog } from "../../ui/Dialog";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";
import { useArchiveOuting } from "./useArchiveOuting";

type Props = { facts: OutingFacts; onClose: () => void; onKeep: (facts: OutingFacts) => void };

/** Name, place, day and light of an outing. */
export function OutingFactsDialog({ facts, onClose, onKeep }: Props) {
  const [kept, setKept] = useState(facts);
  const archive = useArchiveOuting();
  const navigate = useNavigate();
  const briefs = useBriefs().data?.briefs ?? [];
  const setups = useKit().data?.setups ?? [];
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
            className="rounded mt-0.5 block h-[30px] border border-control bg-paper px-2 text-note text-ink"
          />
        </label>
        <TextField label="Light" value={kept.light} onChange={(light) => put({ light })} />
        <Chosen
          label="Brief"
          id={kept.brief_id}
          found={briefs}
          onChange={(brief_id) => put({ brief_id })}
        />
        <Chosen
          label="Set-up"
          id={kept.setup_id}
          found={setups}
          onChange={(setup_id) => put({ setup_id })}
        />
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

type ChosenProps = {
  label: string;
  id: number | null;
  found: readonly { id: number; name: string; archived?: boolean }[];
  onChange: (id: number | null) => void;
};

const USUAL = "";

/** One of the shooter's own, or the usual one. */
function Chosen({ label, id, found, onChange }: ChosenProps) {
  const options = found
    .filter((one) => !one.archived || one.id === id)
    .map((one) => ({ value: String(one.id), words: one.name }));
  return (
    <div className="text-small text-stone">
      {label}
      <div className="mt-0.5">
        <Select
          label={label}
          wide
          value={id === null ? USUAL : String(id)}
          options={[{ value: USUAL, words: "The one in use" }, ...options]}
          onChange={(value) => onChange(value === USUAL ? null : Number(value))}
        />
      </div>
    </div>
  );
}
