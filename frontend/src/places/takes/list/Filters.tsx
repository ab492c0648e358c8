import type { Ref } from "react";
import type { ListFilter } from "../../../api/takes";
import * as format from "../../../formats";
import { Select } from "../../../ui/Select";

const VERDICTS = [
  { value: "all", words: "Every verdict" },
  { value: "keep", words: format.REMEDY_WORDS.keep },
  { value: "lee", words: format.REMEDY_WORDS.lee },
  { value: "slow", words: format.REMEDY_WORDS.slow },
  { value: "polish", words: format.REMEDY_WORDS.polish },
  { value: "polish_lee", words: format.REMEDY_WORDS.polish_lee },
  { value: "slow_polish", words: format.REMEDY_WORDS.slow_polish },
  { value: "hold", words: format.REMEDY_WORDS.hold },
  { value: "retake", words: format.REMEDY_WORDS.retake },
  { value: "none", words: "Not measured" },
] as const;
const FEELS = [
  { value: "all", words: "Every feel" },
  { value: "locked", words: format.FEEL_WORDS.locked },
  { value: "smooth", words: format.FEEL_WORDS.smooth },
  { value: "alive", words: format.FEEL_WORDS.alive },
  { value: "raw", words: format.FEEL_WORDS.raw },
] as const;
const ORDERS = [
  { value: "worth.asc", words: "Worth opening first" },
  { value: "imported.desc", words: "Newest here first" },
  { value: "imported.asc", words: "Oldest here first" },
  { value: "recorded.desc", words: "Last filmed first" },
  { value: "recorded.asc", words: "First filmed first" },
  { value: "gust.asc", words: "Calmest first" },
  { value: "gust.desc", words: "Roughest first" },
  { value: "length.desc", words: "Longest first" },
  { value: "name.asc", words: "By name" },
] as const;
type Order = (typeof ORDERS)[number]["value"];

type Props = {
  filter: ListFilter;
  onChange: (filter: ListFilter) => void;
  search: Ref<HTMLInputElement>;
};

/** Order and filters of the list. */
export function Filters({ filter, onChange, search }: Props) {
  const order = `${filter.sort ?? "imported"}.${filter.descending ? "desc" : "asc"}` as Order;
  return (
    <div className="flex flex-wrap items-center gap-2">
      <input
        ref={search}
        type="search"
        aria-label="Find by name"
        placeholder="Find by name"
        value={filter.text ?? ""}
        onChange={(event) => onChange({ ...filter, text: event.target.value || undefined })}
        className="rounded h-[28px] w-40 border border-control bg-paper px-2 text-note placeholder:text-stone"
      />
      <Select
        label="Verdict"
        value={filter.remedy ?? "all"}
        options={VERDICTS}
        onChange={(remedy) =>
          onChange({ ...filter, remedy: remedy === "all" ? undefined : remedy })
        }
      />
      <Select
        label="Feel"
        value={filter.feel ?? "all"}
        options={FEELS}
        onChange={(feel) => onChange({ ...filter, feel: feel === "all" ? undefined : feel })}
      />
      <Select
        label="Order"
        value={order}
        options={ORDERS}
        onChange={(next) => {
          const [sort, way] = next.split(".") as [ListFilter["sort"], string];
          onChange({ ...filter, sort, descending: way === "desc" });
        }}
      />
    </div>
  );
}
