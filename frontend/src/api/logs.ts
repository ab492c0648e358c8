import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { client, dataOf, type components } from "./client";
import { keys, useChanged } from "./keys";
import { sendFile } from "./uploads";

type Schemas = components["schemas"];
export type LogMapping = Schemas["Mapping"];
export type LogPreview = Schemas["LogPreview"];
export type LogLines = Schemas["LogLines"];

/** Send a log's file; returns the key under which it has arrived. */
export function sendLog(file: File, signal = new AbortController().signal) {
  return sendFile(file, () => undefined, signal);
}

let sendings = 0;

/** A log's file on its way to the server, which reads it there; sent anew by each dialog, as what was
 * sent is gone once it is kept. */
export function useSentLog(file: File) {
  const [sending] = useState(() => (sendings += 1));
  return useQuery({
    queryKey: keys.sentLog(sending),
    gcTime: 0,
    staleTime: Infinity,
    retry: false,
    queryFn: ({ signal }) => sendLog(file, signal),
  });
}

/** What would come of a log that was sent; mapping null: as remembered, or as guessed. */
export function useLogPreview(
  upload: string | undefined,
  mapping: LogMapping | null,
  focal: number,
) {
  return useQuery({
    queryKey: keys.logPreview(upload ?? "", mapping, focal),
    enabled: upload !== undefined,
    placeholderData: keepPreviousData,
    gcTime: 10_000,
    retry: false,
    queryFn: ({ signal }) =>
      dataOf(
        client.POST("/api/logs/preview", {
          body: { upload: upload ?? "", mapping, focal_eq_mm: focal },
          signal,
        }),
      ),
  });
}

/** Keep a log, as a take of its own or with the film of one. */
export function keepLog(body: Schemas["LogAsk"]) {
  return dataOf(client.POST("/api/logs", { body }));
}

export type JoinedFilm = Schemas["JoinedLine"];

/** Cut a session's log by its films' times, and join it to each. */
export function joinRig(body: Schemas["SessionLogAsk"]) {
  return dataOf(client.POST("/api/logs/rig", { body }));
}

export function useKeepLog() {
  const changed = useChanged();
  return useMutation({
    mutationFn: keepLog,
    onSuccess: () => changed("logs"),
  });
}

/** A film's log beside its picture. */
export function useLog(id: number, wanted: boolean) {
  return useQuery({
    queryKey: keys.log(id),
    enabled: wanted,
    queryFn: ({ signal }) =>
      dataOf(client.GET("/api/takes/{take_id}/log", { params: { path: { take_id: id } }, signal })),
  });
}

/** Take a film's log away, or bring back what was taken. */
export function useLogAct(id: number) {
  const changed = useChanged();
  const params = { params: { path: { take_id: id } } };
  return useMutation({
    mutationFn: (act: "take away" | "bring back") =>
      dataOf(
        act === "take away"
          ? client.DELETE("/api/takes/{take_id}/log", params)
          : client.POST("/api/takes/{take_id}/log/restore", params),
      ),
    onSuccess: () => changed("logs"),
  });
}
