import type { Narrowings } from "../../../api/many";
import type { ListFilter } from "../../../api/takes";

type Name = keyof Narrowings;

const NUMBERS = new Set<Name>(["session_id", "setup_id"]);

/** A filter with one value set, or open again. A variation belongs to its drill. */
export function narrowed(filter: ListFilter, name: Name, value: string | null): ListFilter {
  const next = without(filter, name === "drill_key" ? [name, "variation_key"] : [name]);
  return value === null ? next : { ...next, [name]: NUMBERS.has(name) ? Number(value) : value };
}

/** A filter with some values open again. */
export function without(filter: ListFilter, names: readonly Name[]): ListFilter {
  const gone = new Set<string>(names);
  return Object.fromEntries(
    Object.entries(filter).filter(([name]) => !gone.has(name)),
  ) as ListFilter;
}

/** How many filters are set, order and search aside. */
export function setFilters(filter: ListFilter): number {
  const aside = new Set(["sort", "descending", "text"]);
  return Object.entries(filter).filter(([name, value]) => !aside.has(name) && value != null).length;
}
