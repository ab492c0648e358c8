import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { client, dataOf, type components } from "./client";
import { keys } from "./keys";

type Schemas = components["schemas"];
export type Comparison = Schemas["CompareAnswer"];
export type Group = Schemas["GroupLine"];
export type Side = Schemas["SideLine"];
export type CompareQuery = { session?: number; drill?: string; takes?: string };

/** Takes of a session, of a drill, or chosen ones, side by side. */
export function useComparison(query: CompareQuery) {
  return useQuery({
    queryKey: keys.compare(query),
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) => dataOf(client.GET("/api/compare", { params: { query }, signal })),
  });
}
