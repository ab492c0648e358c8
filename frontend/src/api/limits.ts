import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { client, dataOf, type components } from "./client";
import { keys } from "./keys";

type Schemas = components["schemas"];
export type Limits = Schemas["LimitsAnswer"];
export type Technique = Schemas["TechniqueLine"];
export type HoldLine = Schemas["HoldLine"];
export type EnduranceLine = Schemas["EnduranceLine"];
export type Endurance = Schemas["EnduranceAnswer"];
export type StrapLine = Schemas["StrapLine"];

/** What each technique bears under a brief; null is the one in use. */
export function useLimits(brief_id: number | null) {
  return useQuery({
    queryKey: keys.limits(brief_id),
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      dataOf(
        client.GET("/api/limits", {
          params: { query: brief_id === null ? {} : { brief_id } },
          signal,
        }),
      ),
  });
}

/** How many takes each technique bears, and how long a rest it wants; null is the brief in use. */
export function useEndurance(brief_id: number | null) {
  return useQuery({
    queryKey: keys.endurance(brief_id),
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      dataOf(
        client.GET("/api/limits/endurance", {
          params: { query: brief_id === null ? {} : { brief_id } },
          signal,
        }),
      ),
  });
}
