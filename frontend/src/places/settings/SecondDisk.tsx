import { useState } from "react";
import { useSecondDisk, type Space } from "../../api/settings";
import { Button } from "../../ui/Button";
import { FaultView } from "../../ui/FaultView";
import { TextField } from "../../ui/TextField";
import { Moves } from "./Moves";

type Props = Pick<Space, "second" | "moving">;

/** Where originals may stay beside this disk, and what moves there or back. */
export function SecondDisk({ second, moving }: Props) {
  const act = useSecondDisk();
  const [folder, setFolder] = useState("");
  const moves = moving !== null && !moving.ended;
  return (
    <div className="mt-4 max-w-[720px]">
      <h3 className="font-semibold">A second disk</h3>
      <p className="text-note text-stone">
        Films as they came may stay in a folder on another disk, which need not always be connected.
        While it is away their takes say so; judging, comparing and previews from the browser’s copy
        go on. New films come to this disk first.
      </p>
      {act.error && <FaultView error={act.error} />}
      {second === null ? (
        <form
          className="mt-2 flex items-end gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            if (folder.trim()) act.mutate({ act: "use", folder: folder.trim() });
          }}
        >
          <span className="grow">
            <TextField label="Folder on the second disk" value={folder} onChange={setFolder} />
          </span>
          <Button type="submit" disabled={!folder.trim() || act.isPending}>
            Move the films there
          </Button>
        </form>
      ) : (
        <>
          <p role="status" className="mt-2 text-note">
            <b className="font-semibold [overflow-wrap:anywhere]">{second.folder}</b>{" "}
            {second.here
              ? "is connected."
              : "is not here now; connect that disk to reach its films."}
          </p>
          {second.here && !moves && (
            <p className="mt-2 flex flex-wrap gap-3">
              <Button onClick={() => act.mutate({ act: "use", folder: second.folder })}>
                Move what came since
              </Button>
              <Button onClick={() => act.mutate({ act: "leave" })}>Bring all films back</Button>
            </p>
          )}
        </>
      )}
      {moving && <Moves moving={moving} onStop={() => act.mutate({ act: "stop" })} />}
    </div>
  );
}
