import { useState, type FormEvent } from "react";
import { Button } from "./Button";
import { Dialog } from "./Dialog";
import { TextField } from "./TextField";

type Props = {
  title: string;
  first: string;
  act: string;
  open: boolean;
  onClose: () => void;
  onName: (name: string) => void;
};

/** Asks for a name. */
export function NameDialog({ title, first, act, open, onClose, onName }: Props) {
  const [name, setName] = useState(first);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!name.trim()) return;
    onName(name.trim());
    onClose();
  };
  return (
    <Dialog title={title} open={open} onClose={onClose}>
      <form onSubmit={submit} className="space-y-4">
        <TextField
          label="Name"
          value={name}
          onChange={setName}
          problem={name.trim() ? undefined : "It needs a name"}
        />
        <Button look="main" type="submit">
          {act}
        </Button>
      </form>
    </Dialog>
  );
}
