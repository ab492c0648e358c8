import { keepPreviousData, queryOptions, useQuery } from "@tanstack/react-query";
import { client, dataOf, explained, type components } from "./client";
import { keys } from "./keys";
import { outbox } from "./outbox";
import { wholeSession } from "./wholeSession";

type Schemas = components["schemas"];
export type Drill = Schemas["Drill"];
export type DrillItem = Schemas["DrillItem"];
export type Variation = Schemas["Variation"];
export type PracticeAsk = Schemas["Ask"];
export type PracticePlan = Schemas["Session"];
export type Block = Schemas["Block"];
export type TakeOutcome = Schemas["TakeOutcome"];
export type SessionDetail = Schemas["SessionDetail"];
export type SessionItem = Schemas["SessionItem"];
export type SessionTake = Schemas["SessionTake"];
export type TakeResult = Schemas["TakeResult"];
export type TakeNote = Partial<Schemas["TakeNote"]>;

export function useDrills() {
  return useQuery({
    queryKey: keys.drills(),
    queryFn: ({ signal }) => dataOf(client.GET("/api/drills", { signal })),
  });
}

export function keepDrill(drill: Drill) {
  const params = { path: { key: drill.key } };
  return dataOf(client.PUT("/api/drills/{key}", { params, body: { drill } }));
}

export function actOnDrill(key: string, act: "archive" | "restore") {
  const params = { path: { key } };
  if (act === "archive") return dataOf(client.POST("/api/drills/{key}/archive", { params }));
  return dataOf(client.POST("/api/drills/{key}/restore", { params }));
}

/** The session that fits what is asked; built again as the asking changes. */
export function usePlan(ask: PracticeAsk) {
  return useQuery({
    queryKey: keys.plan(ask),
    placeholderData: keepPreviousData,
    gcTime: 10_000,
    queryFn: ({ signal }) => dataOf(client.POST("/api/sessions/plan", { body: { ask }, signal })),
  });
}

export function useSessions() {
  return useQuery({
    queryKey: keys.sessions(),
    queryFn: ({ signal }) => dataOf(client.GET("/api/sessions", { signal })),
  });
}

export function useSession(id: number) {
  return useQuery({
    queryKey: keys.session(id),
    queryFn: async ({ signal }) =>
      wholeSession(
        await dataOf(
          client.GET("/api/sessions/{session_id}", {
            params: { path: { session_id: id } },
            signal,
          }),
        ),
      ),
  });
}

/** How a take's code is read: an address of a picture that needs no network. */
export function slateQuery(id: number, position: number) {
  return queryOptions({
    queryKey: keys.slate(id, position),
    staleTime: Infinity,
    queryFn: async ({ signal }) => {
      const answer = await fetch(`/api/sessions/${id}/slates/${position}.svg`, { signal });
      if (!answer.ok) throw explained(await answer.json().catch(() => null));
      return `data:image/svg+xml,${encodeURIComponent(await answer.text())}`;
    },
  });
}

export function keepSession(body: Schemas["SessionAsk"]) {
  return dataOf(client.POST("/api/sessions", { body }));
}

/** What is to be said of a take that was filmed. */
export function takeResult(id: number, position: number, signal: AbortSignal) {
  const params = { path: { session_id: id, position } };
  return dataOf(
    client.GET("/api/sessions/{session_id}/takes/{position}/result", { params, signal }),
  );
}

export type NoteChange = { act: "note"; position: number; note: TakeNote };
type Change = { act: "accept" } | { act: "end"; ended: boolean } | NoteChange;

function send(id: number, change: Change) {
  const path = { session_id: id };
  if (change.act === "accept") {
    return dataOf(client.POST("/api/sessions/{session_id}/accept", { params: { path } }));
  }
  if (change.act === "end") {
    const body = { ended: change.ended };
    return dataOf(client.POST("/api/sessions/{session_id}/end", { params: { path }, body }));
  }
  return dataOf(
    client.PATCH("/api/sessions/{session_id}/takes/{position}", {
      params: { path: { ...path, position: change.position } },
      body: change.note as Schemas["TakeNote"],
    }),
  );
}

const sessionBox = outbox<Change, SessionDetail>({
  name: "ridgewind-session-notes",
  row: "session",
  keyOf: keys.session,
  send,
  shown: noted,
  outlives: (change) => change.act === "note",
  changed: "sessions",
});
export const useSessionChange = sessionBox.useSend;
export const useLeftNotes = sessionBox.useLeft;
export const useSessionUnsent = sessionBox.useUnsent;

/** A session as it will be once a note is kept. */
function noted(detail: SessionDetail, change: Change): SessionDetail {
  if (change.act !== "note") return detail;
  const takes = detail.session.takes.map((take) =>
    take.position === change.position
      ? { ...take, ...change.note, state: change.note.state ?? take.state }
      : take,
  );
  return { ...detail, session: { ...detail.session, takes } };
}

export type Proposals = Schemas["Proposals"];
export type Match = Schemas["Match"];

/** Which loose films could belong to which takes of a session. */
export function useProposals(id: number) {
  return useQuery({
    queryKey: keys.proposals(id),
    queryFn: ({ signal }) =>
      dataOf(
        client.GET("/api/sessions/{session_id}/matches", {
          params: { path: { session_id: id } },
          signal,
        }),
      ),
    refetchInterval: 4000,
  });
}
