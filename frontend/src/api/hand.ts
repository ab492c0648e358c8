import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
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

/** Let the stand-in camera film a made scene in the shooter's hand; gives the take's number. */
export function useFilmIt() {
  const changed = useChanged();
  return useMutation({
    mutationFn: (body: Schemas["FilmAsk"]) => dataOf(client.POST("/api/hand/film", { body })),
    onSuccess: () => changed("films"),
  });
}
