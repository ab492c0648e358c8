import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
import { client, dataOf, type components } from "./client";
import { keys, useChanged } from "./keys";

type Schemas = components["schemas"];
export type ShotAnswer = Schemas["ShotAnswer"];
export type ShotOption = Schemas["OptionLine"];
export type ShotAsked = {
  brief_id?: number;
  setup_id?: number;
  move: "still" | "move" | "walk";
  focal_eq_mm: number;
  feel?: ShotAnswer["feel"];
  /** Gust that is allowed, over the feel's own. */
  target?: number;
  wanted_s?: number;
  keep_sound?: boolean;
  screen?: ShotAnswer["screen"];
  delivery_fps?: number;
  delivery_width_px?: number;
};

/** Every way to get a shot, the cheapest that work first. */
export function useShot(asked: ShotAsked) {
  return useQuery({
    queryKey: keys.shot(asked),
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) => dataOf(client.GET("/api/shot", { params: { query: asked }, signal })),
  });
}

/** What a clip shows, as a shot like it is asked for. */
export function shotLike(take_id: number) {
  return dataOf(client.GET("/api/shot/like/{take_id}", { params: { path: { take_id } } }));
}

/** Make the set-up that a way wants, and use it; gives its number and that of the one before. */
export function useTakeSetup() {
  const changed = useChanged();
  return useMutation({
    mutationFn: (body: Schemas["SetupOfShot"]) => dataOf(client.POST("/api/shot/setup", { body })),
    onSuccess: () => changed("kit"),
  });
}
