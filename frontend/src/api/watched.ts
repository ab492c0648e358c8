import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { client, dataOf, type components } from "./client";
import { keys, useChanged } from "./keys";

export type Watched = components["schemas"]["WatchedAnswer"];

const LOOK_MS = 2000;

/** The folder from which films come by themselves, and what came. */
export function useWatched() {
  return useQuery({
    queryKey: keys.watched(),
    queryFn: ({ signal }) => dataOf(client.GET("/api/watched", { signal })),
    refetchInterval: (query) => (query.state.data?.root ? LOOK_MS : false),
  });
}

/** Watch another folder, or none (null). */
export function useWatch() {
  const cache = useQueryClient();
  const changed = useChanged();
  return useMutation({
    mutationFn: (path: string | null) =>
      path === null
        ? dataOf(client.DELETE("/api/watched"))
        : dataOf(client.PUT("/api/watched", { body: { path } })),
    onSuccess: (answer) => {
      cache.setQueryData(keys.watched(), answer);
      changed("films");
    },
  });
}
