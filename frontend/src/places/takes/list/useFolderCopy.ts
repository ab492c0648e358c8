import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { client, dataOf } from "../../../api/client";
import { keys, useChanged } from "../../../api/keys";

const LOOK_MS = 400;

/** Brings films of a folder in; the server copies them one after the other, whoever looks on. */
export function useFolderCopy() {
  const changed = useChanged();
  const [id, setId] = useState<number | null>(null);
  const begin = useMutation({
    mutationFn: (ask: { path: string; files: string[] }) =>
      dataOf(client.POST("/api/folders/copies", { body: ask })),
    onSuccess: (copy) => setId(copy.id),
  });
  const copy = useQuery({
    queryKey: keys.folderCopy(id),
    enabled: id !== null,
    queryFn: ({ signal }) =>
      dataOf(
        client.GET("/api/folders/copies/{copy_id}", {
          params: { path: { copy_id: id ?? 0 } },
          signal,
        }),
      ),
    refetchInterval: (query) => (isUnderWay(query.state.data?.state) ? LOOK_MS : false),
  });
  const stop = () => {
    if (id === null) return;
    const params = { path: { copy_id: id } };
    void dataOf(client.DELETE("/api/folders/copies/{copy_id}", { params }))
      .then(() => copy.refetch())
      .catch(() => undefined); // the copy itself says what is wrong
  };
  const state = copy.data ?? begin.data ?? null;
  const settled = state?.settled;
  useEffect(() => {
    if (settled) changed("films");
  }, [changed, settled]);
  return {
    state: id === null ? null : state,
    busy: begin.isPending || (id !== null && isUnderWay(state?.state)),
    fault: begin.error,
    begin: begin.mutate,
    stop,
    forget: () => setId(null),
  };
}

const isUnderWay = (state: string | undefined) => state === "queued" || state === "running";
