import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { client, dataOf, type components } from "./client";
import { keys } from "./keys";

type Schemas = components["schemas"];
export type Joined = Schemas["Joined"];
export type Piece = Schemas["Piece"];
export type PieceItem = Schemas["PieceItem"];
export type CutItem = Schemas["CutItem"];
export type BetterLine = Schemas["BetterLine"];

/** An outing's takes, joined. */
export function useJoined(id: number) {
  return useQuery({
    queryKey: keys.joined(id),
    queryFn: ({ signal }) =>
      dataOf(
        client.GET("/api/outings/{outing_id}/joined", {
          params: { path: { outing_id: id } },
          signal,
        }),
      ),
  });
}

/** Keep other pieces; null lets the shots propose them again. */
export function useJoinedChange(id: number) {
  const cache = useQueryClient();
  const params = { path: { outing_id: id } };
  return useMutation({
    mutationFn: (change: { pieces: Piece[]; base: Piece[] } | null) =>
      change === null
        ? dataOf(client.POST("/api/outings/{outing_id}/joined/anew", { params }))
        : dataOf(client.PUT("/api/outings/{outing_id}/joined", { params, body: change })),
    scope: { id: `joined-${id}` },
    onError: () => cache.invalidateQueries({ queryKey: keys.joined(id) }),
    onSuccess: (found) => cache.setQueryData<Joined>(keys.joined(id), found),
  });
}
