import { useState } from "react";
import { useMoveLibrary, type Space } from "../../api/settings";
import { Button } from "../../ui/Button";
import { FaultView } from "../../ui/FaultView";
import { TextField } from "../../ui/TextField";
import { Moves } from "./Moves";

type Props = Pick<Space, "library" | "relocating">;

/** The library's own way to another disk. */
export function MoveLibrary({ library, relocating }: Props) {
  const move = useMoveLibrary();
  const [folder, setFolder] = useState("");
  if (library === null) return null;
  const goes = relocating !== null && !relocating.ended;
  return (
    <div className="mt-4 max-w-[720px]">
      <h3 className="font-semibold">The library itself</h3>
      <p className="text-note text-stone">
        It is at <b className="font-semibold [overflow-wrap:anywhere]">{library}</b>, and can go to
        another disk while you use it. At the end Ridgewind leaves for a few seconds and goes on
        there; what is here is taken away once all of it was read back there, and it is found by its
        old name too.
      </p>
      {move.error && <FaultView error={move.error} />}
      {!goes && (
        <form
          className="mt-2 flex items-end gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            if (folder.trim()) move.mutate(folder.trim());
          }}
        >
          <span className="grow">
            <TextField label="New folder for the library" value={folder} onChange={setFolder} />
          </span>
          <Button type="submit" disabled={!folder.trim() || move.isPending}>
            Move it there
          </Button>
        </form>
      )}
      {relocating && <Moves moving={relocating} onStop={() => move.mutate(null)} />}
    </div>
  );
}
