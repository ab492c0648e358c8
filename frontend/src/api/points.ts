import { useMutation, useQuery } from "@tanstack/react-query";
import { client, dataOf, type components } from "./client";
import { keys } from "./keys";
import { useToldMotion } from "./takes";

type Schemas = components["schemas"];
export type PointsAnswer = Schemas["PointsAnswer"];
export type SeenPoints = Schemas["SeenPoints"];

/** Seconds that one answer tells. */
export const WINDOW_S = 10;

/** Where the points were that were believed, in the ten seconds about a moment; null for none. */
export function usePoints(id: number, t: number | null) {
  const from_s = t === null ? 0 : Math.floor(t / WINDOW_S) * WINDOW_S;
  return useQuery({
    queryKey: keys.points(id, from_s),
    enabled: t !== null,
    queryFn: ({ signal }) =>
      dataOf(
        client.GET("/api/takes/{take_id}/points", {
          params: { path: { take_id: id }, query: { from_s } },
          signal,
        }),
      ),
  });
}

/** Say in which cells of the picture the background is seen. */
export function useNameBackground(id: number) {
  const told = useToldMotion(id);
  return useMutation({
    mutationFn: (cells: number[]) =>
      dataOf(
        client.PUT("/api/takes/{take_id}/background", {
          params: { path: { take_id: id } },
          body: { cells },
        }),
      ),
    onSuccess: told,
  });
}

/** Judge a take by what is not its marked subject. */
export function useLeaveOutSubject(id: number) {
  const told = useToldMotion(id);
  return useMutation({
    mutationFn: () =>
      dataOf(
        client.PUT("/api/takes/{take_id}/without-subject", { params: { path: { take_id: id } } }),
      ),
    onSuccess: told,
  });
}
