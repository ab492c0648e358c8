import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { client, dataOf, type components } from "./client";
import { keys, useChanged } from "./keys";

type Schemas = components["schemas"];
export type HandAnswer = Schemas["HandAnswer"];
export type HandTechnique = Schemas["HandTechnique"];
export type Predicted = Schemas["Predicted"];
export type HandAsked = {
  technique: string | null;
  focal_eq_mm: number;
  rate: number;
  screen: "phone" | "laptop" | "cinema";
};

/** How the shooter's hand turns, and what it would read through a lens. */
export function useHand(asked: HandAsked) {
  return useQuery({
    queryKey: keys.hand(asked),
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) => {
      const { technique, ...rest } = asked;
      const query = technique === null ? rest : { ...rest, technique };
      return dataOf(client.GET("/api/hand", { params: { query }, signal }));
    },
  });
}

export type Profile = Schemas["ProfileAnswer"];
export type ProfileLine = Schemas["ProfileLine"];

/** Each technique at a glance, and the drills that would gain most, under the brief in use. */
export function useProfile() {
  return useQuery({
    queryKey: keys.profile(),
    queryFn: ({ signal }) =>
      dataOf(client.GET("/api/hand/profile", { params: { query: {} }, signal })),
  });
}

export type HandFilm = Schemas["HandFilm"];

const LOOK_MS = 400;
const isUnderWay = (film: HandFilm | undefined) =>
  film?.state === "queued" || film?.state === "running";

/** Ask for a film of a made scene in the shooter's hand; the server films it, whoever looks on. */
export function useAskFilm() {
  return useMutation({
    mutationFn: (body: Schemas["FilmAsk"]) => dataOf(client.POST("/api/hand/films", { body })),
  });
}

/** How far a film is that was asked for; null is none. */
export function useHandFilm(id: number | null) {
  const changed = useChanged();
  const found = useQuery({
    queryKey: keys.handFilm(id),
    enabled: id !== null,
    queryFn: ({ signal }) =>
      dataOf(
        client.GET("/api/hand/films/{film_id}", { params: { path: { film_id: id ?? 0 } }, signal }),
      ),
    refetchInterval: (query) => (isUnderWay(query.state.data) ? LOOK_MS : false),
  });
  const stop = useMutation({
    mutationFn: (film_id: number) =>
      dataOf(client.DELETE("/api/hand/films/{film_id}", { params: { path: { film_id } } })),
    onSuccess: () => found.refetch(),
  });
  const takeId = found.data?.take_id;
  useEffect(() => {
    if (takeId) changed("films");
  }, [changed, takeId]);
  return { film: id === null ? undefined : found.data, isUnderWay: isUnderWay(found.data), stop };
}
