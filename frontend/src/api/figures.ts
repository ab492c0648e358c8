import { queryOptions, useQuery } from "@tanstack/react-query";
import { client, dataOf, type components } from "./client";
import { keys } from "./keys";

type Schemas = components["schemas"];
export type DrillFigure = Schemas["DrillFigure"];
export type VariationFigure = Schemas["VariationFigure"];
export type FigureFrame = Schemas["FigureFrame"];
type SmallFigures = Schemas["SmallFigures"];

/** Poses change with the program, and with the lengths that the kit's strap gives. */
const KEPT = { staleTime: Infinity } as const;

/** How every variation of a drill is read, drawn and played. */
export function drillFigureQuery(key: string) {
  return queryOptions({
    queryKey: keys.drillFigure(key),
    ...KEPT,
    queryFn: async ({ signal }) => {
      // The client forgets that a place has three parts.
      return (await dataOf(
        client.GET("/api/drills/{key}/figure", { params: { path: { key } }, signal }),
      )) as DrillFigure;
    },
  });
}

/** Every variation of a drill, drawn and played. */
export function useDrillFigure(key: string | null) {
  return useQuery({ ...drillFigureQuery(key ?? ""), enabled: key !== null });
}

/** All drills at a glance, by key. */
export function useSmallFigures() {
  return useQuery({
    queryKey: keys.smallFigures(),
    ...KEPT,
    queryFn: async ({ signal }) =>
      (await dataOf(client.GET("/api/figures", { signal }))) as SmallFigures,
  });
}
