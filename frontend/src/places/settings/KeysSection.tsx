import { useState } from "react";
import { lettersAreOff, switchLetters } from "../../keys/letters";
import { Toggle } from "../../ui/Toggle";

/** Single letters as keys, which speech input or a tremor may type unasked. */
export function KeysSection() {
  const [off, setOff] = useState(lettersAreOff);
  return (
    <section aria-label="Keys" className="border-b border-line px-4 py-4 sm:px-8">
      <h2 className="title text-heading">Keys</h2>
      <p className="mb-2 max-w-[720px] text-note text-stone">
        Letters and digits act at once, without a modifier. Switched off, arrows, Enter, Space and
        Escape still work, and everything can be reached with Tab. The runner keeps its keys.
      </p>
      <Toggle
        label="Letters and digits are keys"
        on={!off}
        onChange={(on) => {
          switchLetters(!on);
          setOff(!on);
        }}
      />
    </section>
  );
}
