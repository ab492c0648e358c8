import { useState } from "react";
import { TextField } from "../../ui/TextField";

type Props = { label: string; value: string; onChange: (value: string) => void };

/** Words that are kept on leaving them, or on Enter. */
export function Words({ label, value, onChange }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const commit = () => {
    if (typed !== null && typed.trim() !== value) onChange(typed.trim());
    setTyped(null);
  };
  return (
    <form
      onBlur={commit}
      onSubmit={(event) => {
        event.preventDefault();
        commit();
      }}
    >
      <TextField label={label} value={typed ?? value} onChange={setTyped} />
    </form>
  );
}
