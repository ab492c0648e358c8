import { queryOptions, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { client, dataOf, explained, type components } from "./client";
import { askAgain, keys, useChanged } from "./keys";
import { othersWait } from "./later";
import { outbox } from "./outbox";

type Schemas = components["schemas"];
export type OutingDetail = Schemas["OutingDetail"];
export type OutingItem = Schemas["OutingItem"];
export type OutingFacts = Schemas["OutingFacts"];
export type ShotItem = Schemas["ShotItem"];
export type PlannedShot = Schemas["PlannedShot"];
export type GapLine = Schemas["GapLine"];
export type StartItem = Schemas["StartItem"];

export function useOutings() {
  return useQuery({
    queryKey: keys.outings(),
    queryFn: ({ signal }) => dataOf(client.GET("/api/outings", { signal })),
  });
}

export function useOuting(id: number) {
  return useQuery({
    queryKey: keys.outing(id),
    queryFn: ({ signal }) =>
      dataOf(
        client.GET("/api/outings/{outing_id}", { params: { path: { outing_id: id } }, signal }),
      ),
  });
}

export function addOuting(body: OutingFacts & { start: string | null; about: string }) {
  return dataOf(client.POST("/api/outings", { body }));
}

/** How a shot's code is read: an address of a picture that needs no network. */
export function shotSlateQuery(id: number) {
  return queryOptions({
    queryKey: keys.shotSlate(id),
    staleTime: Infinity,
    queryFn: async ({ signal }) => {
      const answer = await fetch(`/api/shots/${id}/slate.svg`, { signal });
      if (!answer.ok) throw explained(await answer.json().catch(() => null));
      return `data:image/svg+xml,${encodeURIComponent(await answer.text())}`;
    },
  });
}

export type OutingChange =
  | { act: "facts"; facts: OutingFacts }
  | { act: "line"; line: string }
  | { act: "start"; start: string; about: string }
  | { act: "order"; ids: number[]; base: number[] }
  | { act: "shot"; id: number; shot: PlannedShot; base: PlannedShot }
  | { act: "wave"; key: string; waved: boolean }
  | { act: "archive" | "restore" };

function send(outing_id: number, change: OutingChange) {
  const params = { path: { outing_id } };
  switch (change.act) {
    case "facts":
      return dataOf(client.PUT("/api/outings/{outing_id}", { params, body: change.facts }));
    case "line":
      return dataOf(
        client.POST("/api/outings/{outing_id}/lines", { params, body: { line: change.line } }),
      );
    case "start": {
      const { start, about } = change;
      return dataOf(
        client.POST("/api/outings/{outing_id}/start", { params, body: { start, about } }),
      );
    }
    case "order": {
      const { ids, base } = change;
      return dataOf(client.PUT("/api/outings/{outing_id}/order", { params, body: { ids, base } }));
    }
    case "shot": {
      const { shot, base } = change;
      const path = { shot_id: change.id };
      return dataOf(client.PUT("/api/shots/{shot_id}", { params: { path }, body: { shot, base } }));
    }
    case "wave": {
      const { key, waved } = change;
      return dataOf(client.PUT("/api/outings/{outing_id}/waved", { params, body: { key, waved } }));
    }
    case "archive":
      return dataOf(client.POST("/api/outings/{outing_id}/archive", { params }));
    case "restore":
      return dataOf(client.POST("/api/outings/{outing_id}/restore", { params }));
  }
}

/** A shot as it will be once a change is kept, so that it shows at once. */
function changedAtOnce(detail: OutingDetail, change: OutingChange): OutingDetail {
  if (change.act === "order") {
    const byId = new Map(detail.shots.map((one) => [one.id, one]));
    return { ...detail, shots: change.ids.flatMap((id) => byId.get(id) ?? []) };
  }
  if (change.act === "shot") {
    const { id, shot } = change;
    return {
      ...detail,
      shots: detail.shots.map((one) => (one.id === id ? { ...one, shot } : one)),
    };
  }
  if (change.act === "wave") {
    const { key, waved } = change;
    return {
      ...detail,
      gaps: detail.gaps.map((gap) => (gap.key === key ? { ...gap, waved } : gap)),
    };
  }
  return detail;
}

/** Changes of an outing, one after the other; each is answered with all of it. */
export function useOutingChange(id: number) {
  const cache = useQueryClient();
  const changed = useChanged();
  return useMutation({
    mutationFn: (change: OutingChange) => send(id, change),
    scope: { id: `outing-${id}` },
    onMutate: (change) => {
      cache.setQueryData<OutingDetail>(
        keys.outing(id),
        (detail) => detail && changedAtOnce(detail, change),
      );
    },
    onError: () => askAgain(cache, keys.outing(id)),
    onSuccess: (detail) => {
      if (othersWait(cache, `outing-${id}`)) return;
      cache.setQueryData<OutingDetail>(keys.outing(id), detail);
      changed("outings");
    },
  });
}

export type Meetings = Schemas["Meetings"];
export type MeetingLine = Schemas["MeetingLine"];
export type MetLine = Schemas["MetLine"];
export type FiledTake = Schemas["FiledTake"];

/** Which takes meet an outing's shots, and which could. */
export function useMeetings(id: number) {
  return useQuery({
    queryKey: keys.meetings(id),
    queryFn: ({ signal }) =>
      dataOf(
        client.GET("/api/outings/{outing_id}/takes", {
          params: { path: { outing_id: id } },
          signal,
        }),
      ),
  });
}

/** Let takes meet shots, or none. */
export function useFileTakes(id: number) {
  const cache = useQueryClient();
  const changed = useChanged();
  return useMutation({
    mutationFn: (takes: FiledTake[]) =>
      dataOf(
        client.PUT("/api/outings/{outing_id}/takes", {
          params: { path: { outing_id: id } },
          body: { takes },
        }),
      ),
    onSuccess: (found) => {
      cache.setQueryData<Meetings>(keys.meetings(id), found);
      changed("meetings");
    },
  });
}

export type ShotNote = Partial<Schemas["ShotNote"]>;
type SpotNote = { shot: number; note: ShotNote };

/** Notes of shots on the spot. */
const spotBox = outbox<SpotNote, OutingDetail>({
  name: "ridgewind-spot",
  row: "outing",
  keyOf: keys.outing,
  send: (_, { shot, note }) =>
    dataOf(
      client.PUT("/api/shots/{shot_id}/note", {
        params: { path: { shot_id: shot } },
        body: note as Schemas["ShotNote"],
      }),
    ),
  shown: noted,
  outlives: () => true,
  changed: "outings",
});
export const useShotNote = spotBox.useSend;
export const useLeftShotNotes = spotBox.useLeft;
export const useShotNotesUnsent = spotBox.useUnsent;

function noted(detail: OutingDetail, { shot, note }: SpotNote): OutingDetail {
  const known = Object.fromEntries(Object.entries(note).filter(([, value]) => value != null));
  const shots = detail.shots.map((one) => (one.id === shot ? { ...one, ...known } : one));
  return { ...detail, shots };
}
