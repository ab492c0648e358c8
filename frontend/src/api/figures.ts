import { useQuery } from "@tanstack/react-query";
import { client, dataOf, type components } from "./client";
import { keys } from "./keys";

type Schemas = components["schemas"];
export type DrillFigure = Schemas["DrillFigure"];
export type VariationFigure = Schemas["VariationFigure"];
export type FigureFrame = Schemas["FigureFrame"];
type SmallFigures = Schemas["SmallFigures"];

/** Poses change with the program, and with the lengths that the kit's strap gives. */
const KEPT = { staleTime: Infinity } as const;

/** Every variation of a drill, drawn and played. */
export function useDrillFigure(key: string | null) {
  return useQuery({
    queryKey: keys.drillFigure(key),
    enabled: key !== null,
    ...KEPT,
    queryFn: async ({ signal }) => {
      const path = { key: key ?? "" };
      // The client forgets that a place has three parts.
      return (await dataOf(
        client.GET("/api/drills/{key}/figure", { params: { path }, signal }),
      )) as DrillFigure;
    },
  });
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
