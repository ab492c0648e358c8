import { useState } from "react";
import { numbersOf } from "../numbers";
import { TextField } from "./TextField";

type Props = {
  label: string;
  values: readonly number[];
  onChange: (values: number[]) => void;
  problem?: string | undefined;
  hint?: string;
};

/** Several numbers with commas between; typed freely, taken over as they become numbers. */
export function NumbersField({ label, values, onChange, problem, hint }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <div onBlur={() => setTyped(null)}>
      <TextField
        label={label}
        value={typed ?? values.join(", ")}
        problem={problem}
        {...(hint ? { hint } : {})}
        onChange={(text) => {
          setTyped(text);
          onChange(numbersOf(text));
        }}
      />
    </div>
  );
}
