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
    onSuccess: (found) => {
      cache.setQueryData<Joined>(keys.joined(id), found);
      void cache.invalidateQueries({ queryKey: keys.sequenceFilm(id) });
    },
  });
}

export type SequenceFilm = Schemas["SequenceFilm"];
const LOOK_MS = 500;
const isOnItsWay = (film: SequenceFilm | undefined) =>
  film?.state === "queued" || film?.state === "running";

/** The sequence rendered small, looked at while it is on its way. */
export function useSequenceFilm(id: number) {
  return useQuery({
    queryKey: keys.sequenceFilm(id),
    queryFn: ({ signal }) =>
      dataOf(
        client.GET("/api/outings/{outing_id}/film", {
          params: { path: { outing_id: id } },
          signal,
        }),
      ),
    refetchInterval: ({ state }) => (isOnItsWay(state.data) ? LOOK_MS : false),
  });
}

/** Render the sequence, or stop rendering it. */
export function useSequenceFilmChange(id: number) {
  const cache = useQueryClient();
  const params = { path: { outing_id: id } };
  return useMutation({
    mutationFn: (act: "begin" | "stop") =>
      act === "begin"
        ? dataOf(client.POST("/api/outings/{outing_id}/film", { params }))
        : dataOf(client.DELETE("/api/outings/{outing_id}/film", { params })),
    onSuccess: (found) => cache.setQueryData<SequenceFilm>(keys.sequenceFilm(id), found),
  });
}

export type Used = Schemas["Used"];

/** Which takes became film, by the time line that was brought back last. */
export function useUsed(id: number) {
  return useQuery({
    queryKey: keys.used(id),
    queryFn: ({ signal }) =>
      dataOf(
        client.GET("/api/outings/{outing_id}/used", {
          params: { path: { outing_id: id } },
          signal,
        }),
      ),
  });
}

/** Bring a time line back from the desk. */
export function useBringBack(id: number) {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: async (file: File) =>
      dataOf(
        client.POST("/api/outings/{outing_id}/used", {
          params: { path: { outing_id: id } },
          body: { text: await file.text() },
        }),
      ),
    onSuccess: (found) => cache.setQueryData<Used>(keys.used(id), found),
  });
}
