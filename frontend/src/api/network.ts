import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { client, dataOf, type components } from "./client";
import { keys } from "./keys";

type Schemas = components["schemas"];
export type Network = Schemas["NetworkAnswer"];
export type PairedPhone = Schemas["PhoneLine"];

const LOOK_MS = 1000;

/** Whether Ridgewind is open to phones, and which are paired; looked at again while it is open. */
export function useNetwork() {
  return useQuery({
    queryKey: keys.network(),
    queryFn: ({ signal }) => dataOf(client.GET("/api/network", { signal })),
    refetchInterval: (query) => (query.state.data?.opening ? LOOK_MS : false),
  });
}

export type NetworkAct =
  | { act: "open"; address: string }
  | { act: "close" | "offer" | "withdraw" }
  | { act: "remove"; phone: number };

function send(asked: NetworkAct) {
  switch (asked.act) {
    case "open":
      return client.POST("/api/network", { body: { address: asked.address } });
    case "close":
      return client.DELETE("/api/network");
    case "offer":
      return client.POST("/api/network/code");
    case "withdraw":
      return client.DELETE("/api/network/code");
    case "remove":
      return client.DELETE("/api/network/phones/{phone_id}", {
        params: { path: { phone_id: asked.phone } },
      });
  }
}

/** Open, close, offer a code or let a phone go; each answers with all of it. */
export function useNetworkAct() {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: (asked: NetworkAct) => dataOf<Network>(send(asked)),
    onSuccess: (answer) => cache.setQueryData(keys.network(), answer),
  });
}
