import {
  keepPreviousData,
  useInfiniteQuery,
  useMutation,
  useQuery,
  useQueryClient,
  type InfiniteData,
  type QueryClient,
} from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import {
  client,
  dataOf,
  type components,
  type Brief,
  type ListQuery,
  type TakeChange,
  type TakeDetail,
  type TakePage,
} from "./client";
import { askAgain, keys, useChanged } from "./keys";
import { othersWait } from "./later";

const PAGE_ROWS = 100;
const BUSY_REFRESH_MS = 600;
const IDLE_REFRESH_MS = 8000;

/** Which takes, in what order. */
export type ListFilter = Omit<ListQuery, "offset" | "limit">;

/** Pages of the list, refreshed quickly while something is being measured. */
export function useTakes(filter: ListFilter) {
  return useInfiniteQuery({
    queryKey: keys.takes(filter),
    initialPageParam: 0,
    queryFn: ({ pageParam, signal }) => readPage(filter, pageParam, signal),
    getNextPageParam: (last, pages) => {
      const loaded = pages.reduce((count, page) => count + page.takes.length, 0);
      return loaded < last.total && last.takes.length > 0 ? loaded : undefined;
    },
    placeholderData: keepPreviousData,
  });
}

/** What the list holds and waits for, asked often; only where that has changed since the list was
    read is the list read again. */
export function usePulse() {
  const cache = useQueryClient();
  const pulse = useQuery({
    queryKey: keys.pulse(),
    queryFn: ({ signal }) => dataOf(client.GET("/api/pulse", { signal })),
    refetchInterval: ({ state }) =>
      state.data?.busy || state.data?.stale ? BUSY_REFRESH_MS : IDLE_REFRESH_MS,
  });
  const stamp = pulse.data?.stamp;
  const at_ms = pulse.dataUpdatedAt;
  const reads = useRef(false);
  useEffect(() => {
    // One reading at a time, to its end: a pulse that broke off the one before it would leave a list
    // unread for as long as something is measured.
    if (stamp === undefined || reads.current || !isBehind(cache, stamp, at_ms)) return;
    reads.current = true;
    void readBehind(cache).finally(() => (reads.current = false));
  }, [cache, stamp, at_ms]);
  return pulse;
}

/** Rows of the list that are seen, from and up to; told by whoever draws it. */
const seen = { from: 0, to: PAGE_ROWS };
export function tellSeen(from: number, to: number) {
  seen.from = from;
  seen.to = to;
}

const isSeen = (page: number) => page * PAGE_ROWS < seen.to && (page + 1) * PAGE_ROWS > seen.from;

/** Reads again what is seen of the lists that are shown, and how many takes there are of what. A list
 * of another length is another list, and read whole. */
async function readBehind(cache: QueryClient): Promise<void> {
  const shown = cache.getQueryCache().findAll({ queryKey: ["takes"], type: "active" });
  await Promise.all([
    cache.refetchQueries({ queryKey: ["narrowings"], type: "active" }, { cancelRefetch: false }),
    ...shown.map(async (query) => {
      const list = query.state.data as InfiniteData<TakePage, number> | undefined;
      const filter = query.queryKey[1] as ListFilter;
      const wanted = (list?.pageParams ?? []).filter((_, page) => isSeen(page));
      const fresh = await Promise.all(
        wanted.map(async (offset) => ({ offset, page: await readPage(filter, offset) })),
      );
      const whole = fresh.every(({ page }) => page.total === list?.pages[0]?.total);
      if (!list || !whole)
        return cache.refetchQueries({ queryKey: query.queryKey }, { cancelRefetch: false });
      cache.setQueryData<InfiniteData<TakePage, number>>(query.queryKey, (now) => {
        if (!now) return now;
        const byOffset = new Map(fresh.map(({ offset, page }) => [offset, page]));
        const pages = now.pages.map((page, k) => byOffset.get(now.pageParams[k] ?? -1) ?? page);
        return { ...now, pages };
      });
    }),
  ]).catch(() => undefined); // the next pulse asks again
}

const readPage = (filter: ListFilter, offset: number, signal?: AbortSignal) =>
  dataOf(
    client.GET("/api/takes", {
      params: { query: { ...filter, offset, limit: PAGE_ROWS } },
      ...(signal && { signal }),
    }),
  );

/** Whether a list that is shown is of another state than the one that was told after it came. */
function isBehind(cache: QueryClient, stamp: string, at_ms: number): boolean {
  return cache
    .getQueryCache()
    .findAll({ queryKey: ["takes"], type: "active" })
    .some(({ state }) => {
      const list = state.data as InfiniteData<TakePage> | undefined;
      const pages = state.dataUpdatedAt <= at_ms ? (list?.pages ?? []) : [];
      return pages.some((page, k) => isSeen(k) && page.stamp !== stamp);
    });
}

export function useTake(id: number) {
  return useQuery({
    queryKey: keys.take(id),
    queryFn: ({ signal }) =>
      dataOf(client.GET("/api/takes/{take_id}", { params: { path: { take_id: id } }, signal })),
    placeholderData: keepPreviousData,
    refetchInterval: (query) => {
      const state = query.state.data?.take.state;
      return state === "queued" || state === "running" ? BUSY_REFRESH_MS : false;
    },
  });
}

/** The path for drawing over the picture. */
export function usePath(id: number, measured: boolean) {
  return useQuery({
    queryKey: keys.path(id),
    enabled: measured,
    staleTime: Infinity,
    queryFn: ({ signal }) =>
      dataOf(
        client.GET("/api/takes/{take_id}/path", { params: { path: { take_id: id } }, signal }),
      ),
  });
}

/** The shake by frequency. */
export function useSpectrum(id: number) {
  return useQuery({
    queryKey: keys.spectrum(id),
    queryFn: ({ signal }) =>
      dataOf(
        client.GET("/api/takes/{take_id}/spectrum", { params: { path: { take_id: id } }, signal }),
      ),
  });
}

const HEALTH_MS = 20_000;
const TROUBLE_MS = 3_000;

/** What this Ridgewind is, and whether it can keep what it is given; looked at now and then. */
export function useStatus() {
  return useQuery({
    queryKey: keys.status(),
    staleTime: HEALTH_MS,
    queryFn: ({ signal }) => dataOf(client.GET("/api/status", { signal })),
    refetchInterval: ({ state }) => (state.data?.trouble || state.error ? TROUBLE_MS : HEALTH_MS),
  });
}

/** What was mended has been read. */
export function useMendedRead() {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: () => dataOf(client.DELETE("/api/mended")),
    onSuccess: () => askAgain(cache, keys.status()),
  });
}

/** Let a take point at another brief or set-up, or give it a lens of its own. */
export function useChangeTake(id: number) {
  const cache = useQueryClient();
  const changed = useChanged();
  return useMutation({
    mutationFn: (body: TakeChange) =>
      dataOf(
        client.PATCH("/api/takes/{take_id}", {
          params: { path: { take_id: id } },
          body: body as components["schemas"]["TakeChange"],
        }),
      ),
    onSuccess: (detail) => {
      cache.setQueryData<TakeDetail>(keys.take(id), detail);
      changed("kit");
    },
  });
}

/** Change what is asked of this take alone; the new judgement shows as soon as it is back. */
export function useChangeBrief(id: number) {
  const cache = useQueryClient();
  const changed = useChanged();
  return useMutation({
    mutationFn: (brief: Brief) =>
      dataOf(
        client.PUT("/api/takes/{take_id}/brief", {
          params: { path: { take_id: id } },
          body: brief,
        }),
      ),
    scope: { id: `brief-${id}` },
    onMutate: (brief) => {
      cache.setQueryData<TakeDetail>(keys.take(id), (old) => old && { ...old, brief });
    },
    onSuccess: (detail) => {
      if (othersWait(cache, `brief-${id}`)) return;
      cache.setQueryData<TakeDetail>(keys.take(id), detail);
      changed("verdicts");
    },
    onError: () => askAgain(cache, keys.take(id)),
  });
}

/** Say which motion of a shot is the camera's; the new judgement shows as soon as it is back. */
export function useSayWhoseMotion(id: number) {
  const told = useToldMotion(id);
  return useMutation({
    mutationFn: (body: { shot: number; rival: number }) =>
      dataOf(
        client.PUT("/api/takes/{take_id}/whose-motion", {
          params: { path: { take_id: id } },
          body,
        }),
      ),
    onSuccess: told,
  });
}

/** Take back what was said of a take's motions. */
export function useForgetWhoseMotion(id: number) {
  const told = useToldMotion(id);
  return useMutation({
    mutationFn: () =>
      dataOf(
        client.DELETE("/api/takes/{take_id}/whose-motion", { params: { path: { take_id: id } } }),
      ),
    onSuccess: told,
  });
}

/** What to do with the answer to a word on whose motion it is. */
export function useToldMotion(id: number) {
  const cache = useQueryClient();
  const changed = useChanged();
  return (detail: TakeDetail) => {
    cache.setQueryData<TakeDetail>(keys.take(id), detail);
    changed("motion");
  };
}

type Act = "delete" | "restore" | "cancel" | "measure";

function send(act: Act, id: number) {
  const params = { path: { take_id: id } };
  if (act === "delete") return dataOf(client.DELETE("/api/takes/{take_id}", { params }));
  if (act === "restore") return dataOf(client.POST("/api/takes/{take_id}/restore", { params }));
  if (act === "cancel") return dataOf(client.POST("/api/takes/{take_id}/cancel", { params }));
  return dataOf(client.POST("/api/takes/{take_id}/measure", { params }));
}

/** Delete, restore, cancel or measure a take. */
export function useTakeAct() {
  const changed = useChanged();
  return useMutation({
    mutationFn: ({ act, id }: { act: Act; id: number }) => send(act, id),
    onSettled: () => changed("films"),
  });
}
