import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { client, dataOf, type components } from "./client";
import { keys } from "./keys";

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
