import { useMutation } from "@tanstack/react-query";
import { client, dataOf, type components } from "./client";
import { useChanged } from "./keys";
import { actOnBrief } from "./kit";

type Made = components["schemas"]["ExampleBrief"];

/** Make the feel of a film the feel of a brief; gives the brief's number. */
export function useLikeIt() {
  const changed = useChanged();
  return useMutation({
    mutationFn: ({ take_id, ...body }: { take_id: number; name: string; is_own: boolean }) =>
      dataOf(
        client.POST("/api/takes/{take_id}/brief-like-it", { params: { path: { take_id } }, body }),
      ),
    onSuccess: () => changed("many"),
  });
}

/** Archive such a brief again, and let its film be what it was. */
export async function putBack(take_id: number, made: Made) {
  await actOnBrief(made.brief_id, "archive");
  return dataOf(
    client.PUT("/api/takes/{take_id}/origin", {
      params: { path: { take_id } },
      body: { origin: made.before },
    }),
  );
}
