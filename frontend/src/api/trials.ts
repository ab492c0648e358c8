import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
import { client, dataOf, type components } from "./client";
import { keys, useChanged } from "./keys";

type Schemas = components["schemas"];
export type DrillTrial = Schemas["DrillTrial"];
export type TrialLine = Schemas["TrialLine"];
export type TrialSide = Schemas["TrialSide"];
export type TrialTake = Schemas["TrialTakeLine"];

/** Drills that were filmed in two ways or more. */
export function useTrials() {
  return useQuery({
    queryKey: keys.trials(),
    queryFn: ({ signal }) => dataOf(client.GET("/api/trials", { signal })),
  });
}

/** What a drill's takes tell of its variations, by one figure; null is the usual one. */
export function useTrial(drill_key: string | null, by: string | null) {
  return useQuery({
    queryKey: keys.trial(drill_key, by),
    enabled: drill_key !== null,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      dataOf(
        client.GET("/api/trials/{drill_key}", {
          params: { path: { drill_key: drill_key ?? "" }, query: by === null ? {} : { by } },
          signal,
        }),
      ),
  });
}

export type PickedAsked = {
  takes: string;
  grouping: "variation" | "setup" | "lens" | "brief";
  control?: string;
  by?: string;
};

/** A trial by hand, of any takes. */
export function usePickedTrial(asked: PickedAsked) {
  return useQuery({
    queryKey: keys.pickedTrial(asked),
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: ({ signal }) =>
      dataOf(client.GET("/api/trials/picked", { params: { query: asked }, signal })),
  });
}

/** Let a take into trials, or keep it out; null leaves it to what is known of it. */
export function useLetIn() {
  const changed = useChanged();
  return useMutation({
    mutationFn: ({ take_id, counts }: { take_id: number; counts: boolean | null }) =>
      dataOf(
        client.PUT("/api/takes/{take_id}/counts", {
          params: { path: { take_id } },
          body: { counts },
        }),
      ),
    onSuccess: () => changed("counts"),
  });
}

/** Keep a session of the takes that would settle a trial; gives its number. */
export function usePlanNext() {
  const changed = useChanged();
  return useMutation({
    mutationFn: (drill_key: string) =>
      dataOf(client.POST("/api/trials/{drill_key}/session", { params: { path: { drill_key } } })),
    onSuccess: () => changed("sessions"),
  });
}
