import { useMutation, useQuery, useQueryClient, type QueryClient } from "@tanstack/react-query";
import { client, dataOf, type components } from "./client";
import { askAgain, keys } from "./keys";

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

type Change = { pieces: Piece[]; base: Piece[] | null; seen?: Joined };

/** Keep other pieces; null lets the shots propose them again. seen: what is shown until the answer
 * comes. */
export function useJoinedChange(id: number) {
  const cache = useQueryClient();
  const params = { path: { outing_id: id } };
  return useMutation({
    mutationFn: (change: Change | null) => {
      if (change === null) {
        return dataOf(client.POST("/api/outings/{outing_id}/joined/anew", { params }));
      }
      const { pieces, base } = change;
      return dataOf(
        client.PUT("/api/outings/{outing_id}/joined", { params, body: { pieces, base } }),
      );
    },
    mutationKey: keys.joined(id),
    onMutate: async (change) => {
      if (!change?.seen) return;
      await cache.cancelQueries({ queryKey: keys.joined(id) });
      cache.setQueryData<Joined>(keys.joined(id), change.seen);
    },
    scope: { id: `joined-${id}` },
    onError: () => askAgain(cache, keys.joined(id)),
    onSuccess: (found) => {
      // What was done since then is shown already, and has its own answer.
      if (cache.isMutating({ mutationKey: keys.joined(id) }) > 1) return;
      cache.setQueryData<Joined>(keys.joined(id), found);
      filmsChanged(cache, id);
    },
  });
}

export type Look = Schemas["LookChange"];

/** Show the sequence otherwise, or move every cut to its beat. */
export function useLookChange(id: number) {
  const cache = useQueryClient();
  const params = { path: { outing_id: id } };
  return useMutation({
    mutationFn: (change: Look | "snap") =>
      change === "snap"
        ? dataOf(client.POST("/api/outings/{outing_id}/joined/snap", { params }))
        : dataOf(client.PUT("/api/outings/{outing_id}/joined/look", { params, body: change })),
    scope: { id: `joined-${id}` },
    onSuccess: (found) => {
      cache.setQueryData<Joined>(keys.joined(id), found);
      filmsChanged(cache, id);
    },
  });
}

const filmsChanged = (cache: QueryClient, id: number) => {
  for (const whole of [false, true]) void askAgain(cache, keys.sequenceFilm(id, whole));
};

/** What would make a cut match better; sides: the pieces beside it. */
export function useBetterCuts(id: number, cut: number, sides: readonly Piece[]) {
  return useQuery({
    queryKey: keys.betterCuts(id, cut, ...sides),
    queryFn: ({ signal }) =>
      dataOf(
        client.GET("/api/outings/{outing_id}/joined/cuts/{cut}", {
          params: { path: { outing_id: id, cut } },
          signal,
        }),
      ),
  });
}

export type SequenceFilm = Schemas["SequenceFilm"];
const LOOK_MS = 500;
const isOnItsWay = (film: SequenceFilm | undefined) =>
  film?.state === "queued" || film?.state === "running";

/** The sequence rendered, small or whole, looked at while it is on its way. */
export function useSequenceFilm(id: number, whole = false) {
  return useQuery({
    queryKey: keys.sequenceFilm(id, whole),
    queryFn: ({ signal }) =>
      dataOf(
        client.GET("/api/outings/{outing_id}/film", {
          params: { path: { outing_id: id }, query: { whole } },
          signal,
        }),
      ),
    refetchInterval: ({ state }) => (isOnItsWay(state.data) ? LOOK_MS : false),
  });
}

/** Render the sequence, or stop rendering it. */
export function useSequenceFilmChange(id: number, whole = false) {
  const cache = useQueryClient();
  const params = { path: { outing_id: id }, query: { whole } };
  return useMutation({
    mutationFn: (act: "begin" | "stop") =>
      act === "begin"
        ? dataOf(client.POST("/api/outings/{outing_id}/film", { params }))
        : dataOf(client.DELETE("/api/outings/{outing_id}/film", { params })),
    onSuccess: (found) => cache.setQueryData<SequenceFilm>(keys.sequenceFilm(id, whole), found),
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
    onSuccess: (found) => {
      cache.setQueryData<Used>(keys.used(id), found);
      void askAgain(cache, keys.becameFilm());
    },
  });
}

export type FilmLine = Schemas["FilmLine"];

/** What becomes film, by technique. */
export function useBecameFilm() {
  return useQuery({
    queryKey: keys.becameFilm(),
    queryFn: ({ signal }) => dataOf(client.GET("/api/became-film", { signal })),
  });
}
