import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { client, dataOf, type components } from "./client";
import { keys, useChanged } from "./keys";

type Schemas = components["schemas"];
export type Comparison = Schemas["CompareAnswer"];
export type Group = Schemas["GroupLine"];
export type Side = Schemas["SideLine"];
export type Eye = Schemas["EyeAnswer"];
export type FeelEye = Schemas["FeelEye"];
export type EyeMark = Schemas["MarkLine"];
export type Threshold = Schemas["ThresholdLine"];
export type Cleared = Schemas["ClearedAnswer"];
export type Weights = Schemas["WeightsBody"];
export type CompareQuery = { session?: number; drill?: string; takes?: string };

/** Takes of a session, of a drill, or chosen ones, side by side. */
export function useComparison(query: CompareQuery) {
  return useQuery({
    queryKey: keys.compare(query),
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) => dataOf(client.GET("/api/compare", { params: { query }, signal })),
  });
}

/** What the shooter's marks say. */
export function useEye() {
  return useQuery({
    queryKey: keys.eye(),
    queryFn: ({ signal }) => dataOf(client.GET("/api/eye", { signal })),
  });
}

/** Takes without a mark, in an order that tells nothing; it stays while the page is open. */
export function useBlindOrder(seed: number) {
  return useQuery({
    queryKey: keys.blind(seed),
    staleTime: Infinity,
    queryFn: ({ signal }) =>
      dataOf(client.GET("/api/eye/blind", { params: { query: { seed } }, signal })),
  });
}

/** Make a feel's threshold its target, or undo that. */
export function useThreshold() {
  const changed = useChanged();
  const refresh = () => changed("verdicts");
  const use = useMutation({
    mutationFn: (feel: FeelEye["feel"]) =>
      dataOf(client.POST("/api/eye/{feel}/use", { params: { path: { feel } } })),
    onSuccess: refresh,
  });
  const undo = useMutation({
    mutationFn: (body: Schemas["UsedEye"]) => dataOf(client.POST("/api/eye/undo", { body })),
    onSuccess: refresh,
  });
  return { use, undo };
}

export function useWeights() {
  return useQuery({
    queryKey: keys.weights(),
    queryFn: ({ signal }) => dataOf(client.GET("/api/settings/weights", { signal })),
  });
}

/** Change what the costs of a remedy weigh. */
export function useChangeWeights() {
  const cache = useQueryClient();
  const changed = useChanged();
  return useMutation({
    mutationFn: (body: Weights) => dataOf(client.PUT("/api/settings/weights", { body })),
    scope: { id: "weights" },
    onSuccess: (answer) => {
      cache.setQueryData(keys.weights(), answer);
      changed("verdicts");
    },
  });
}

/** What could be cleared from the disk, and what was. */
export function useCleared() {
  return useQuery({
    queryKey: keys.cleared(),
    queryFn: ({ signal }) => dataOf(client.GET("/api/cleared", { signal })),
  });
}

type ClearAct = { act: "clear" } | { act: "restore"; clip_id: number } | { act: "empty" };

export function useClear() {
  const cache = useQueryClient();
  const changed = useChanged();
  return useMutation({
    mutationFn: (ask: ClearAct) => {
      if (ask.act === "clear") return dataOf(client.POST("/api/cleared"));
      if (ask.act === "empty") return dataOf(client.DELETE("/api/cleared"));
      return dataOf(
        client.POST("/api/cleared/{clip_id}/restore", {
          params: { path: { clip_id: ask.clip_id } },
        }),
      );
    },
    onSuccess: (answer) => {
      cache.setQueryData(keys.cleared(), answer);
      changed("originals");
    },
  });
}
