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
  return sayOrigin(take_id, made.before);
}

/** Say whose a film is: the shooter's own, somebody else's, or the stand-in camera's. */
export function sayOrigin(take_id: number, origin: Made["before"]) {
  const params = { path: { take_id } };
  return dataOf(client.PUT("/api/takes/{take_id}/origin", { params, body: { origin } }));
}
