import { Segments } from "../../ui/Segments";
import { isTold, METERS, SAYINGS } from "./choices";
import type { RunChoices as Choices } from "./useRunChoices";

/** How a session is run: who films, and what is told meanwhile. */
export function RunChoices({ choices }: { choices: Choices }) {
  const { camera, cameras, setCamera, say, setSay, meter, setMeter } = choices;
  return (
    <div className="flex flex-wrap items-center gap-x-6 gap-y-2 px-4 pb-3 text-note sm:px-8">
      <span className="flex flex-wrap items-center gap-2">
        Filmed with
        <Segments label="Filmed with" value={camera} options={cameras} onChange={setCamera} />
      </span>
      {!isTold(camera) ? (
        <span className="text-stone">Its films are brought in later, and find their takes.</span>
      ) : (
        <span className="flex flex-wrap items-center gap-2">
          In the rest, say
          <Segments label="In the rest, say" value={say} options={SAYINGS} onChange={setSay} />
        </span>
      )}
      <span className="flex flex-wrap items-center gap-2">
        Live meter in holds
        <Segments label="Live meter in holds" value={meter} options={METERS} onChange={setMeter} />
      </span>
    </div>
  );
}
