import { useQuery } from "@tanstack/react-query";
import { client, dataOf, type components } from "./client";
import { keys } from "./keys";
import { TAB } from "./page";

type Schemas = components["schemas"];
export type Place = Schemas["PlaceBody"];
export type Stage = Schemas["StageAnswer"];
export type Wish = Schemas["WishAsk"]["wish"];

const pathOf = (session_id: number) => ({ path: { session_id } });

/** Which screen runs a session, and where it is; every_ms: between two looks. */
export function useStage(id: number, every_ms: number) {
  return useQuery({
    queryKey: keys.stage(id),
    retry: false,
    queryFn: ({ signal }) =>
      dataOf(client.GET("/api/sessions/{session_id}/stage", { params: pathOf(id), signal })),
    refetchInterval: every_ms,
  });
}

/** Whether another screen than this one runs it. */
export const isElsewhere = (stage: Stage | undefined) =>
  stage?.holder != null && stage.holder !== TAB;

/** Say where the session is that this screen runs; the answer tells what others ask of it. */
export function tellStage(id: number, place: Place, take_over: boolean) {
  return dataOf(
    client.PUT("/api/sessions/{session_id}/stage", {
      params: pathOf(id),
      body: { holder: TAB, take_over, place },
    }),
  );
}

/** Ask something of the screen that runs a session. */
export async function wishStage(id: number, wish: Wish) {
  const asked = client.POST("/api/sessions/{session_id}/stage/wishes", {
    params: pathOf(id),
    body: { wish },
  });
  await dataOf(asked.then((answer) => (answer.error ? answer : { ...answer, data: true })));
}

/** This screen runs the session no more; said although the page goes away. */
export function leaveStage(id: number) {
  return fetch(`/api/sessions/${id}/stage?holder=${TAB}`, {
    method: "DELETE",
    keepalive: true,
  }).catch(() => undefined);
}
