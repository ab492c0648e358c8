import { useMutation, useQuery } from "@tanstack/react-query";
import { client, dataOf, type components } from "./client";
import { keys, useChanged } from "./keys";

export type FolderScan = components["schemas"]["FolderScan"];
export type FolderCopy = components["schemas"]["CopyLine"];

const LOOK_MS = 400;

/** What films lie below a folder. */
export const scanFolder = (path: string) =>
  dataOf(client.POST("/api/folders/scan", { body: { path } }));

/** How far a copy is. */
export const folderCopy = (id: number, signal?: AbortSignal) =>
  dataOf(
    client.GET("/api/folders/copies/{copy_id}", {
      params: { path: { copy_id: id } },
      ...(signal ? { signal } : {}),
    }),
  );

export const isUnderWay = (copy: FolderCopy | undefined) =>
  copy?.state === "queued" || copy?.state === "running";

/** One copy, followed until it has ended; null where there is none. */
export function useFolderCopy(id: number | null) {
  return useQuery({
    queryKey: keys.folderCopy(id),
    enabled: id !== null,
    queryFn: ({ signal }) => folderCopy(id ?? 0, signal),
    refetchInterval: ({ state }) => (isUnderWay(state.data) ? LOOK_MS : false),
  });
}

/** All copies that go on, whichever page or window asked for them, and what ended ones left out. */
export function useToldCopies(wanted: boolean) {
  return useQuery({
    queryKey: keys.folderCopies(),
    enabled: wanted,
    queryFn: ({ signal }) => dataOf(client.GET("/api/folders/copies", { signal })),
    refetchInterval: ({ state }) => (state.data?.copies.some(isUnderWay) ? LOOK_MS : false),
  });
}

/** Bring films of a folder in; the server copies them one after the other, whoever looks on. */
export function useBeginCopy() {
  const changed = useChanged();
  return useMutation({
    mutationFn: (ask: { path: string; files: string[] }) =>
      dataOf(client.POST("/api/folders/copies", { body: ask })),
    onSuccess: () => changed("copies"),
  });
}

/** Stop a copy; the films that are here stay. */
export function useStopCopy() {
  const changed = useChanged();
  return useMutation({
    mutationFn: (id: number) =>
      dataOf(client.DELETE("/api/folders/copies/{copy_id}", { params: { path: { copy_id: id } } })),
    onSuccess: () => changed("copies"),
  });
}

/** What a copy could not bring in has been seen. */
export function useSeenCopy() {
  const changed = useChanged();
  return useMutation({
    mutationFn: (id: number) =>
      dataOf(
        client.POST("/api/folders/copies/{copy_id}/seen", { params: { path: { copy_id: id } } }),
      ),
    onSuccess: () => changed("copies"),
  });
}
