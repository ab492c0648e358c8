import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { client, dataOf, type components } from "./client";
import { askAgain, keys, useChanged } from "./keys";

type Schemas = components["schemas"];
export type Cleared = Schemas["ClearedAnswer"];
export type Weights = Schemas["WeightsBody"];

/** Which copies of the database there are, and how large the films are. */
export function useKept() {
  return useQuery({
    queryKey: keys.kept(),
    queryFn: ({ signal }) => dataOf(client.GET("/api/kept", { signal })),
  });
}

export type Merged = Schemas["MergedLine"];
export type Archive = Schemas["ArchiveLine"];

/** Take the last archive that was brought in back; everything may be another after it. */
export function useTakeBack() {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: () => dataOf(client.DELETE("/api/kept/merged")),
    onSuccess: () => askAgain(cache, []),
  });
}

export type Space = Schemas["Space"];

/** Where the space of the library goes. */
export function useSpace() {
  return useQuery({
    queryKey: keys.space(),
    queryFn: ({ signal }) => dataOf(client.GET("/api/space", { signal })),
    refetchInterval: (query) =>
      [query.state.data?.moving, query.state.data?.relocating].some((one) => one && !one.ended)
        ? MOVING_MS
        : false,
  });
}

const MOVING_MS = 500;

export type SecondDiskAct = { act: "use"; folder: string } | { act: "stop" | "leave" };

/** Move the whole library to another disk, or stay. */
export function useMoveLibrary() {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: (folder: string | null) =>
      dataOf<Space>(
        folder === null
          ? client.POST("/api/space/library/stop")
          : client.PUT("/api/space/library", { body: { folder } }),
      ),
    onSuccess: (answer) => cache.setQueryData(keys.space(), answer),
  });
}

/** Let originals stay on another disk, move no more, or bring them back; each answers with all. */
export function useSecondDisk() {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: (asked: SecondDiskAct) =>
      dataOf<Space>(
        asked.act === "use"
          ? client.PUT("/api/space/second", { body: { folder: asked.folder } })
          : asked.act === "stop"
            ? client.POST("/api/space/second/stop")
            : client.DELETE("/api/space/second"),
      ),
    onSuccess: (answer) => cache.setQueryData(keys.space(), answer),
  });
}

/** Take away what can be made again. */
export function useFreeSpace() {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: () => dataOf(client.POST("/api/space/free")),
    onSuccess: (found) => cache.setQueryData<Space>(keys.space(), found),
  });
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

/** Takes that were deleted and can still be brought back. */
export function useDeleted() {
  return useQuery({
    queryKey: keys.deleted(),
    queryFn: ({ signal }) => dataOf(client.GET("/api/deleted", { signal })),
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
