import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
import { client, dataOf, explained, type components, type ListQuery } from "./client";
import { keys, useChanged } from "./keys";
import { saveBlob } from "./saving";
import type { ListFilter } from "./takes";

type Schemas = components["schemas"];
export type Narrowings = Schemas["Narrowings"];
/** What of many takes is changed; a part that is left out stays. */
export type ManyChange = Partial<Omit<Schemas["ManyAsk"], "ids">>;

/** What the list could be narrowed by, beside what it is narrowed by already. */
export function useNarrowings(filter: ListFilter, wanted: boolean) {
  return useQuery({
    queryKey: keys.narrowings(filter),
    enabled: wanted,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      dataOf(
        client.GET("/api/takes/narrowings", { params: { query: withoutOrder(filter) }, signal }),
      ),
  });
}

function withoutOrder(filter: ListFilter): ListFilter {
  const rest = { ...filter };
  delete rest.sort;
  delete rest.descending;
  return rest;
}

/** Ids of all takes that the list would show, in its order. */
export async function idsOf(filter: ListFilter): Promise<number[]> {
  const query: Omit<ListQuery, "offset" | "limit"> = filter;
  return (await dataOf(client.GET("/api/takes/ids", { params: { query } }))).ids;
}

/** Change many takes at once; the answer tells by what all of it is undone. */
export function useChangeMany() {
  const changed = useChanged();
  return useMutation({
    mutationFn: ({ ids, change }: { ids: number[]; change: ManyChange }) =>
      dataOf(client.POST("/api/takes/many", { body: { ids, ...change } as Schemas["ManyAsk"] })),
    onSuccess: () => changed("many"),
  });
}

export function useUndoMany() {
  const changed = useChanged();
  return useMutation({
    mutationFn: (change_id: number) =>
      dataOf(client.POST("/api/takes/many/{change_id}/undo", { params: { path: { change_id } } })),
    onSuccess: () => changed("many"),
  });
}

/** Let the verdict of each be rendered full size. */
export function useRenderMany() {
  const changed = useChanged();
  return useMutation({
    mutationFn: (ids: number[]) =>
      dataOf(client.POST("/api/takes/many/renders", { body: { ids } })),
    onSuccess: () => changed("renders"),
  });
}

/** Save what is known of takes as a table. */
export async function saveTable(ids: number[], form: "csv" | "json"): Promise<void> {
  const reply = await fetch("/api/takes/export", {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify({ ids, form }),
  });
  if (!reply.ok) throw explained(await reply.json().catch(() => null));
  saveBlob(await reply.blob(), `takes.${form}`);
}
