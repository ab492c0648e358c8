import { useMutation, useQuery } from "@tanstack/react-query";
import { client, dataOf, type components } from "./client";
import { keys, useChanged } from "./keys";

type Schemas = components["schemas"];
export type Eye = Schemas["EyeAnswer"];
export type FeelEye = Schemas["FeelEye"];
export type EyeMark = Schemas["MarkLine"];
export type Threshold = Schemas["ThresholdLine"];

/** What the shooter's marks say. */
export function useEye() {
  return useQuery({
    queryKey: keys.eye(),
    queryFn: ({ signal }) => dataOf(client.GET("/api/eye", { signal })),
  });
}

/** Takes without a mark, in an order that tells nothing; it stays while the page is open. */
export function useBlindOrder(seed: number) {
  return useQuery({
    queryKey: keys.blind(seed),
    staleTime: Infinity,
    queryFn: ({ signal }) =>
      dataOf(client.GET("/api/eye/blind", { params: { query: { seed } }, signal })),
  });
}

/** Make a feel's threshold its target, or undo that. */
export function useThreshold() {
  const changed = useChanged();
  const refresh = () => changed("verdicts");
  const use = useMutation({
    mutationFn: (feel: FeelEye["feel"]) =>
      dataOf(client.POST("/api/eye/{feel}/use", { params: { path: { feel } } })),
    onSuccess: refresh,
  });
  const undo = useMutation({
    mutationFn: (body: Schemas["UsedEye"]) => dataOf(client.POST("/api/eye/undo", { body })),
    onSuccess: refresh,
  });
  return { use, undo };
}
