import { useState, type ReactNode } from "react";
import { useLetIn, useWorkers, useWorkersAct, type Machine, type Workers } from "../../api/workers";
import { Button } from "../../ui/Button";
import { FaultView } from "../../ui/FaultView";
import { TextField } from "../../ui/TextField";
import { SeatLine } from "./SeatLine";
import { lastHere } from "./workers";

/** Other computers that measure and render for this library. */
export function WorkersSection() {
  const found = useWorkers();
  const act = useWorkersAct();
  const workers = found.data;
  if (found.isLoadingError) return <FaultView error={found.error} />;
  if (!workers) return null;
  return (
    <section aria-label="Other computers" className="border-b border-line px-4 py-4 sm:px-8">
      <h2 className="title text-heading">Other computers</h2>
      <p className="max-w-[80ch] text-note text-stone">
        A card of a hundred films is measured sooner by more than one machine. Each other computer
        gets a key of its own, which opens the films that it works at and nothing else; where one
        vanishes, another does its work.
      </p>
      {act.error && <FaultView error={act.error} />}
      <Broker workers={workers} />
      {workers.workers.length > 0 && (
        <ul aria-label="Computers that measure and render" className="mt-3 max-w-[760px]">
          <Here workers={workers} onRest={(resting) => act.mutate({ act: "rest", resting })} />
          {workers.workers.map((machine) => (
            <MachineLine
              key={machine.id}
              machine={machine}
              onStop={(seat) => act.mutate({ act: "stop", seat })}
              onRemove={() => act.mutate({ act: "remove", machine: machine.id })}
            />
          ))}
        </ul>
      )}
      <LetIn workers={workers} />
    </section>
  );
}

function Broker({ workers }: { workers: Workers }) {
  if (!workers.broker) return null;
  const words =
    workers.reached === false
      ? "does not answer at the moment; work goes on without it"
      : "hands out the work";
  return (
    <p role="status" className="mt-2 text-note">
      <b className="font-semibold">{workers.broker}</b> {words}.
    </p>
  );
}

type HereProps = { workers: Workers; onRest: (resting: boolean) => void };

function Here({ workers, onRest }: HereProps) {
  const { resting } = workers;
  const nobody = !workers.workers.some((one) => one.seats.length);
  return (
    <Line name="This computer" said={resting ? said(nobody, workers.waiting) : "measures too"}>
      <Button onClick={() => onRest(!resting)}>
        {resting ? "Measure here too" : "Leave it to the others"}
      </Button>
    </Line>
  );
}

const said = (nobody: boolean, waiting: number) =>
  nobody && waiting > 0
    ? "rests, and no other computer is at work: films wait"
    : "rests; the others measure and render";

type LineProps = { name: string; said: string; children: ReactNode };

function Line({ name, said, children }: LineProps) {
  return (
    <li className="border-t border-line py-1.5">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <b className="font-semibold">{name}</b>
        <span className="min-w-0 grow text-note text-stone">{said}</span>
        {children}
      </div>
    </li>
  );
}

type MachineProps = { machine: Machine; onStop: (seat: number) => void; onRemove: () => void };

function MachineLine({ machine, onStop, onRemove }: MachineProps) {
  return (
    <li className="border-t border-line py-1.5">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <b className="font-semibold">{machine.name}</b>
        <span className="min-w-0 grow text-note text-stone">{lastHere(machine)}</span>
        <Button aria-label={`Let it in no more: ${machine.name}`} onClick={onRemove}>
          Let it in no more
        </Button>
      </div>
      {machine.seats.map((seat) => (
        <SeatLine key={seat.id} seat={seat} machine={machine.name} onStop={() => onStop(seat.id)} />
      ))}
    </li>
  );
}

function LetIn({ workers }: { workers: Workers }) {
  const letIn = useLetIn();
  const [name, setName] = useState("");
  const saved = letIn.data?.file_name;
  return (
    <>
      <form
        className="mt-3 flex max-w-[640px] items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim()) letIn.mutate(name.trim(), { onSuccess: () => setName("") });
        }}
      >
        <span className="grow">
          <TextField label="What to call the other computer" value={name} onChange={setName} />
        </span>
        <Button type="submit" disabled={!name.trim() || letIn.isPending}>
          Save its key
        </Button>
      </form>
      {letIn.error && <FaultView error={letIn.error} />}
      {saved && (
        <p role="status" className="mt-2 max-w-[80ch] text-note">
          Saved as <b className="font-semibold">{saved}</b>; it cannot be saved again. Install the
          same Ridgewind on the other computer, carry the file there, and run{" "}
          <code className="[overflow-wrap:anywhere]">
            ridgewind worker {saved}
            {!workers.address && " --server http://127.0.0.1:…"}
          </code>
        </p>
      )}
      {!workers.address && (
        <p className="mt-2 max-w-[80ch] text-note text-stone">
          Ridgewind is closed to the network now, so a key that is saved now serves workers on this
          computer alone. Open it above, under Phones, and then save the key.
        </p>
      )}
    </>
  );
}
