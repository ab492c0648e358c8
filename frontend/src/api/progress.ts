import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
import { client, dataOf, type components } from "./client";
import { keys, useChanged } from "./keys";

type Schemas = components["schemas"];
export type Season = Schemas["Season"];
export type Week = Schemas["WeekLine"];
export type ProgressDrill = Schemas["ProgressDrill"];
export type Trend = Schemas["TrendLine"];
export type Work = Schemas["WorkLine"];
export type Noted = Schemas["Noted"];
export type Feeling = Schemas["FeelingLine"];
export type FeltTechnique = Schemas["FeltTechnique"];
export type Estimate = Schemas["EstimateLine"];

/** Weeks of practice, of a drill or of all together. */
export function useProgress(drill: string | null) {
  return useQuery({
    queryKey: keys.progress(drill),
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      dataOf(
        client.GET("/api/progress", { params: { query: drill === null ? {} : { drill } }, signal }),
      ),
  });
}

/** Feeling, tiredness and rest against what was measured. */
export function useNoted() {
  return useQuery({
    queryKey: keys.noted(),
    queryFn: ({ signal }) => dataOf(client.GET("/api/noted", { signal })),
  });
}

/** Keep a session of one drill, with one variation beside its control; gives its number. */
export function usePractise() {
  const changed = useChanged();
  return useMutation({
    mutationFn: ({ key, variation }: { key: string; variation: string | null }) =>
      dataOf(
        client.POST("/api/drills/{key}/session", {
          params: { path: { key } },
          body: { variation },
        }),
      ),
    onSuccess: () => changed("sessions"),
  });
}

/** Keep the first look at the shooter's hand; gives its number. */
export function useFirstLook() {
  const changed = useChanged();
  return useMutation({
    mutationFn: () => dataOf(client.POST("/api/sessions/first-look")),
    onSuccess: () => changed("sessions"),
  });
}
