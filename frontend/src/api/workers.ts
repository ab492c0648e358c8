import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { client, dataOf, type components } from "./client";
import { keys } from "./keys";
import { saveText } from "./saving";

type Schemas = components["schemas"];
export type Workers = Schemas["WorkersAnswer"];
export type Machine = Schemas["WorkerLine"];
export type Seat = Schemas["SeatLine"];

const LOOK_MS = 2000;

/** The machines that may work for the library, and what they do; looked at again while any may. */
export function useWorkers() {
  return useQuery({
    queryKey: keys.workers(),
    queryFn: ({ signal }) => dataOf(client.GET("/api/workers", { signal })),
    refetchInterval: (query) => (query.state.data?.workers.length ? LOOK_MS : false),
  });
}

/** Let a machine in; its key is saved as a file, which cannot be had again. */
export function useLetIn() {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: (name: string) => dataOf(client.POST("/api/workers", { body: { name } })),
    onSuccess: (answer) => {
      cache.setQueryData(keys.workers(), answer.workers);
      saveText(answer.file, answer.file_name);
    },
  });
}

export type WorkersAct =
  | { act: "rest"; resting: boolean }
  | { act: "stop"; seat: number }
  | { act: "remove"; machine: number };

function send(asked: WorkersAct) {
  switch (asked.act) {
    case "rest":
      return client.PUT("/api/workers/here", { body: { resting: asked.resting } });
    case "stop":
      return client.POST("/api/workers/seats/{seat_id}/stop", {
        params: { path: { seat_id: asked.seat } },
      });
    case "remove":
      return client.DELETE("/api/workers/{worker_id}", {
        params: { path: { worker_id: asked.machine } },
      });
  }
}

/** Rest here, stop a worker or let a machine in no more; each answers with all of them. */
export function useWorkersAct() {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: (asked: WorkersAct) => dataOf<Workers>(send(asked)),
    onSuccess: (answer) => cache.setQueryData(keys.workers(), answer),
  });
}
