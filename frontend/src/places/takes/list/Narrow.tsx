import { useNarrowings, type Narrowings } from "../../../api/many";
import type { ListFilter } from "../../../api/takes";
import * as format from "../../../formats";
import { Button } from "../../../ui/Button";
import { Select } from "../../../ui/Select";
import { narrowed, without } from "./narrowing";

type Name = keyof Narrowings;

const ROWS: { name: Name; label: string; any: string }[] = [
  { name: "choice", label: "Settled", any: "Settled or open" },
  { name: "day", label: "Day", any: "Any day" },
  { name: "session_id", label: "Session", any: "Any session" },
  { name: "drill_key", label: "Drill", any: "Any drill" },
  { name: "variation_key", label: "Variation", any: "Any variation" },
  { name: "setup_id", label: "Set-up", any: "Any set-up" },
  { name: "cause", label: "Cause", any: "Any cause" },
  { name: "origin", label: "Films of", any: "Yours and simulated" },
];

type Props = { filter: ListFilter; onChange: (filter: ListFilter) => void };

/** Filters whose values are counted, so that none is chosen in vain. */
export function Narrow({ filter, onChange }: Props) {
  const found = useNarrowings(filter, true).data;
  const several = ROWS.filter(
    ({ name }) => (found?.[name].length ?? 0) > 0 || chosen(filter, name),
  );
  return (
    <div
      role="group"
      aria-label="Narrow the list"
      className="flex flex-wrap items-center gap-2 border-b border-line px-4 py-2 sm:px-8"
    >
      {several.map(({ name, label, any }) => (
        <Select
          key={name}
          label={label}
          value={chosen(filter, name) ?? "any"}
          options={[
            { value: "any", words: any },
            ...(found?.[name] ?? []).map((one) => ({
              value: one.value,
              words: `${name === "day" ? format.when(one.value).day : one.words} · ${one.takes}`,
            })),
            ...missing(found?.[name], chosen(filter, name)),
          ]}
          onChange={(value) => onChange(narrowed(filter, name, value === "any" ? null : value))}
        />
      ))}
      {ROWS.some(({ name }) => chosen(filter, name)) && (
        <Button
          look="bare"
          onClick={() =>
            onChange(
              without(
                filter,
                ROWS.map(({ name }) => name),
              ),
            )
          }
        >
          All of them
        </Button>
      )}
    </div>
  );
}

const chosen = (filter: ListFilter, name: Name) => {
  const value = filter[name];
  return value === undefined || value === null ? null : String(value);
};

/** A value that is chosen though no take has it now, so that it can be seen and left. */
function missing(values: Narrowings[Name] | undefined, value: string | null) {
  if (value === null || values?.some((one) => one.value === value)) return [];
  return [{ value, words: "None left" }];
}
