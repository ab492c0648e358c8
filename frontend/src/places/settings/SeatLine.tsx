import type { Seat } from "../../api/workers";
import { Button } from "../../ui/Button";
import { Progress } from "../../ui/Progress";
import { seatWords } from "./workers";

type Props = { seat: Seat; machine: string; onStop: () => void };

/** One worker: what it does, how far it is, how fast. */
export function SeatLine({ seat, machine, onStop }: Props) {
  const { doing, pace } = seatWords(seat);
  return (
    <div className="mt-1 flex flex-wrap items-center gap-x-3 gap-y-1 border-l-2 border-line pl-3">
      <span className="min-w-0 grow text-note">
        <span className="block truncate">{doing}</span>
        <span className="text-stone">{pace}</span>
      </span>
      {seat.doing && (
        <span className="w-[120px]">
          <Progress value={seat.done} label={`How far ${machine} is`} />
        </span>
      )}
      <Button aria-label={`Stop a worker of ${machine}`} disabled={seat.stopping} onClick={onStop}>
        Stop
      </Button>
    </div>
  );
}
