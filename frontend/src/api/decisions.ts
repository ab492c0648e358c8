import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { client, dataOf, type components, type TakeDetail, type TakeLine } from "./client";
import { askAgain, keys, useChanged } from "./keys";

type Schemas = components["schemas"];
export type RemedyDetails = Schemas["RemedyDetails"];
export type Strength = Schemas["StrengthLine"];
export type RateLine = Schemas["RateLine"];
export type Render = Schemas["RenderLine"];
export type Windows = Schemas["WindowColumns"];
export type Drift = NonNullable<Schemas["RecipeLine"]["drift"]>;
export type Choice = NonNullable<TakeLine["choice"]>;

/** What of a remedy is asked for; null is as the remedy itself says. */
export type RemedyChoice = {
  remedy: Schemas["RenderAsk"]["remedy"];
  corner_hz: number | null;
  rate: number | null;
  drift: Drift | null;
  /** Of a subject that is held: it glides, or stands still. */
  glide: boolean | null;
};

const POLL_MS = 300;
const SAME = 1e-3;

const queryOf = (wanted: RemedyChoice) => ({
  remedy: wanted.remedy,
  ...(wanted.corner_hz === null ? {} : { corner_hz: wanted.corner_hz }),
  ...(wanted.rate === null ? {} : { rate: wanted.rate }),
  ...(wanted.drift === null ? {} : { drift: wanted.drift }),
  ...(wanted.glide === null ? {} : { glide: wanted.glide }),
});

/** Address of a remedy's numbers as a file. */
export function recipeAddress(id: number, wanted: RemedyChoice, kind: "csv" | "json"): string {
  const query = new URLSearchParams(
    Object.entries(queryOf(wanted)).map(([name, value]) => [name, String(value)]),
  );
  return `/api/takes/${id}/recipe.${kind}?${query.toString()}`;
}

/** Rates, polish curves, hints for next time and the drill: what lies behind the remedies. */
export function useRemedyDetails(id: number, brief: unknown, enabled: boolean) {
  return useQuery({
    queryKey: keys.remedyDetails(id, brief),
    enabled,
    queryFn: ({ signal }) =>
      dataOf(
        client.GET("/api/takes/{take_id}/remedy-details", {
          params: { path: { take_id: id } },
          signal,
        }),
      ),
  });
}

/** What of each frame a remedy shows. */
export function useWindows(id: number, wanted: RemedyChoice, brief: unknown) {
  return useQuery({
    queryKey: keys.windows(id, wanted, brief),
    retry: false,
    queryFn: ({ signal }) =>
      dataOf(
        client.GET("/api/takes/{take_id}/windows", {
          params: { path: { take_id: id }, query: queryOf(wanted) },
          signal,
        }),
      ),
  });
}

const busy = (render: Render) => render.state === "queued" || render.state === "running";

/** Films made from a take, looked at often while one is being made. */
export function useRenders(id: number) {
  return useQuery({
    queryKey: keys.renders(id),
    queryFn: ({ signal }) =>
      dataOf(
        client.GET("/api/takes/{take_id}/renders", { params: { path: { take_id: id } }, signal }),
      ),
    refetchInterval: (query) => (query.state.data?.renders.some(busy) ? POLL_MS : false),
  });
}

/** Ask for a film of a remedy. */
export function useRender(id: number) {
  const changed = useChanged();
  return useMutation({
    mutationFn: ({ wanted, purpose }: { wanted: RemedyChoice; purpose: Render["purpose"] }) =>
      dataOf(
        client.POST("/api/takes/{take_id}/renders", {
          params: { path: { take_id: id } },
          body: { ...wanted, purpose },
        }),
      ),
    onSuccess: () => changed("renders"),
  });
}

/** Stop a film that is being made, or remove one. */
export function useForgetRender() {
  const changed = useChanged();
  return useMutation({
    mutationFn: (render_id: number) =>
      dataOf(client.DELETE("/api/renders/{render_id}", { params: { path: { render_id } } })),
    onSuccess: () => changed("renders"),
  });
}

/** The newest film of the wanted kind, if one was asked for. */
export function renderFor(
  renders: Render[] | undefined,
  wanted: RemedyChoice,
  purpose: Render["purpose"],
  usual: { corner_hz: number | null; rate: number; glide: boolean | null },
): Render | undefined {
  const corner = wanted.corner_hz ?? usual.corner_hz ?? 0;
  const rate = wanted.rate ?? usual.rate;
  const glide = wanted.glide ?? usual.glide;
  return renders?.find(
    ({ recipe, ...render }) =>
      render.purpose === purpose &&
      recipe.remedy === wanted.remedy &&
      recipe.drift === wanted.drift &&
      recipe.glide === glide &&
      Math.abs((recipe.corner_hz ?? 0) - corner) < SAME &&
      Math.abs(recipe.rate - rate) < SAME,
  );
}

type MarkAsk = { smooth: boolean | null; blind?: boolean; render_id?: number | null };

/** Mark a take, or a preview of it: smooth enough or not. */
export function useMark() {
  const cache = useQueryClient();
  const changed = useChanged();
  return useMutation({
    mutationFn: ({ id, smooth, blind = false, render_id = null }: MarkAsk & { id: number }) =>
      dataOf(
        client.PUT("/api/takes/{take_id}/mark", {
          params: { path: { take_id: id } },
          body: { smooth, blind, render_id },
        }),
      ),
    onSuccess: (detail: TakeDetail) => {
      cache.setQueryData(keys.take(detail.take.id), detail);
      changed("marks");
    },
  });
}

/** Keep a take, reject it, or film it again; null leaves it open. */
export function useChoose() {
  const cache = useQueryClient();
  const changed = useChanged();
  return useMutation({
    mutationFn: ({ id, choice }: { id: number; choice: Choice | null }) =>
      dataOf(
        client.PUT("/api/takes/{take_id}/choice", {
          params: { path: { take_id: id } },
          body: { choice },
        }),
      ),
    onSuccess: (take) => {
      cache.setQueryData<TakeDetail>(keys.take(take.id), (old) => old && { ...old, take });
      // One that was being read meanwhile knows nothing of the choice.
      void askAgain(cache, keys.take(take.id));
      changed("choices");
    },
  });
}
