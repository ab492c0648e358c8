import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
import { client, dataOf, type components } from "./client";
import { keys } from "./keys";

type Schemas = components["schemas"];
export type Kit = Schemas["Kit"];
export type Camera = Schemas["Camera"];
export type Lens = Schemas["Lens"];
export type Mode = Schemas["Mode"];
export type Support = Schemas["Support"];
export type CameraItem = Schemas["CameraItem"];
export type LensItem = Schemas["LensItem"];
export type SupportItem = Schemas["SupportItem"];
export type SetupAsk = Schemas["SetupAsk"];
export type SetupItem = Schemas["SetupItem"];
export type Bench = Schemas["Bench"];
export type Optics = Schemas["Optics"];
export type BenchAnswer = Schemas["BenchAnswer"];
export type Problem = Schemas["PanelProblem"];
export type Place = Schemas["Place"];
export type BriefItem = Schemas["BriefItem"];
export type BriefAsk = Schemas["BriefAsk"];
export type KitKind = "cameras" | "lenses" | "supports";
export type Specs = { cameras: Camera; lenses: Lens; supports: Support };

export function useKit() {
  return useQuery({
    queryKey: keys.kit(),
    queryFn: ({ signal }) => dataOf(client.GET("/api/kit", { signal })),
  });
}

export function useBriefs() {
  return useQuery({
    queryKey: keys.briefs(),
    queryFn: ({ signal }) => dataOf(client.GET("/api/briefs", { signal })),
  });
}

export type BenchQuery = { setup: SetupAsk; setupId: number; briefId: number | null };

function benchBody({ setup, setupId, briefId }: BenchQuery) {
  return { setup, setup_id: setupId, brief_id: briefId };
}

/** Every panel's figures for a set-up as it stands on the page, kept or not. */
export function useBench(asked: BenchQuery | null) {
  return useQuery({
    queryKey: keys.bench(asked),
    enabled: asked !== null,
    placeholderData: keepPreviousData,
    gcTime: 10_000,
    queryFn: ({ signal }) =>
      dataOf(client.POST("/api/bench", { body: benchBody(asked as BenchQuery), signal })),
  });
}

/** Film the planned move with the stand-in camera. */
export function usePreview() {
  return useMutation({
    mutationFn: (asked: BenchQuery) =>
      dataOf(client.POST("/api/bench/preview", { body: benchBody(asked) })),
  });
}

/** base: the set-up as it was when the change was begun; null overwrites what was changed since. */
export function saveSetup(id: number | null, setup: SetupAsk, base: SetupAsk | null = null) {
  if (id === null) return dataOf(client.POST("/api/kit/setups", { body: setup }));
  const params = { path: { setup_id: id } };
  return dataOf(client.PUT("/api/kit/setups/{setup_id}", { params, body: { ...setup, base } }));
}

export type Act = "archive" | "restore" | "use";

export function actOnSetup(id: number, act: Act) {
  const params = { path: { setup_id: id } };
  if (act === "use") return dataOf(client.POST("/api/kit/setups/{setup_id}/use", { params }));
  if (act === "archive") {
    return dataOf(client.POST("/api/kit/setups/{setup_id}/archive", { params }));
  }
  return dataOf(client.POST("/api/kit/setups/{setup_id}/restore", { params }));
}

export function actOnItem(id: number, act: "archive" | "restore") {
  const params = { path: { item_id: id } };
  if (act === "archive") {
    return dataOf(client.POST("/api/kit/items/{item_id}/archive", { params }));
  }
  return dataOf(client.POST("/api/kit/items/{item_id}/restore", { params }));
}

/** Keep a new item (id null) or a corrected one. */
export function saveItem<K extends KitKind>(
  kind: K,
  id: number | null,
  body: { name: string; spec: Specs[K] },
) {
  const params = { path: { item_id: id ?? 0 } };
  if (kind === "cameras") {
    const camera = body as { name: string; spec: Camera };
    return id === null
      ? dataOf(client.POST("/api/kit/cameras", { body: camera }))
      : dataOf(client.PUT("/api/kit/cameras/{item_id}", { params, body: camera }));
  }
  if (kind === "lenses") {
    const lens = body as { name: string; spec: Lens };
    return id === null
      ? dataOf(client.POST("/api/kit/lenses", { body: lens }))
      : dataOf(client.PUT("/api/kit/lenses/{item_id}", { params, body: lens }));
  }
  const support = body as { name: string; spec: Support };
  return id === null
    ? dataOf(client.POST("/api/kit/supports", { body: support }))
    : dataOf(client.PUT("/api/kit/supports/{item_id}", { params, body: support }));
}

export function addBrief(body: BriefAsk) {
  return dataOf(client.POST("/api/briefs", { body }));
}

/** base: the brief as it was when the change was begun; null overwrites what was changed since. */
export function changeBrief(id: number, body: BriefAsk, base: BriefAsk | null = null) {
  const params = { path: { brief_id: id } };
  return dataOf(client.PUT("/api/briefs/{brief_id}", { params, body: { ...body, base } }));
}

export function actOnBrief(id: number, act: Act) {
  const params = { path: { brief_id: id } };
  if (act === "use") return dataOf(client.POST("/api/briefs/{brief_id}/use", { params }));
  if (act === "archive") return dataOf(client.POST("/api/briefs/{brief_id}/archive", { params }));
  return dataOf(client.POST("/api/briefs/{brief_id}/restore", { params }));
}
