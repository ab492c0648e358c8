import type { Space } from "../../api/settings";
import * as format from "../../formats";
import { Button } from "../../ui/Button";
import { Progress } from "../../ui/Progress";

type MovesProps = { moving: NonNullable<Space["moving"]>; onStop: () => void };

/** How far what moves is, and a way to stop it. */
export function Moves({ moving, onStop }: MovesProps) {
  const words = `${format.fileSize(moving.done)} of ${format.fileSize(moving.total)} moved`;
  return (
    <div role="status" className="mt-2 flex flex-wrap items-center gap-3 text-note">
      <span>
        {words}
        {moving.fault && <span className="text-ember-deep">: {moving.fault}</span>}
      </span>
      {!moving.ended && (
        <>
          <span className="w-[160px]">
            <Progress
              value={moving.total ? moving.done / moving.total : null}
              label="How far the films are"
            />
          </span>
          <Button onClick={onStop}>Stop</Button>
        </>
      )}
    </div>
  );
}
