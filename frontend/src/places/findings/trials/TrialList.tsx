import type { TrialLine } from "../../../api/trials";
import * as format from "../../../formats";
import { Select } from "../../../ui/Select";
import { chance } from "./words";

/** Chance from which one way is called the steadiest (chosen here: as the intervals are). */
const CLEAR = 0.9;

type Props = { lines: TrialLine[]; chosen: string | null; onOpen: (key: string) => void };

/** Drills that can be compared, the most filmed first. */
export function TrialList({ lines, chosen, onOpen }: Props) {
  return (
    <ul className="hidden border-r border-line md:block">
      {lines.map((line) => (
        <li key={line.drill_key} className="relative border-b border-line last:border-b-0">
          {line.drill_key === chosen && <i className="absolute inset-y-0 left-0 w-1 bg-lamp" />}
          <button
            type="button"
            aria-current={line.drill_key === chosen}
            onClick={() => onOpen(line.drill_key)}
            className="block w-full px-4 py-2 text-left hover:bg-paper aria-[current=true]:bg-paper sm:pl-8"
          >
            <b className="block font-semibold">{line.drill}</b>
            <span className="block text-small text-stone">
              {format.takes(line.takes)},{" "}
              {line.sessions === 1 ? "1 session" : `${line.sessions} sessions`}
            </span>
            <span className="block text-note">{standing(line)}</span>
          </button>
        </li>
      ))}
    </ul>
  );
}

function standing(line: TrialLine): string {
  if (line.hint || line.best === null || line.chance === null) return "A hint";
  if (line.chance >= CLEAR) return `Steadiest: ${line.best}, ${chance(line.chance)}`;
  return line.settled
    ? "None is clearly steadier"
    : `Open: ${line.best} leads, ${chance(line.chance)}`;
}

/** The same on a narrow screen: one at a time. */
export function TrialChoice({ lines, chosen, onOpen }: Props) {
  return (
    <div className="border-b border-line px-4 py-2.5 md:hidden">
      <Select
        wide
        label="Trial"
        value={chosen ?? ""}
        options={lines.map((line) => ({ value: line.drill_key, words: line.drill }))}
        onChange={onOpen}
      />
    </div>
  );
}
