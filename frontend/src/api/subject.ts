import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { client, dataOf, type components } from "./client";
import { keys, useChanged } from "./keys";

type Schemas = components["schemas"];
export type SubjectAnswer = Schemas["SubjectAnswer"];
export type PointPath = Schemas["PointPath"];

/** The marked subject of a take: where it was, and how near the middle it stayed. */
export function useSubject(id: number) {
  return useQuery({
    queryKey: keys.subject(id),
    queryFn: ({ signal }) =>
      dataOf(
        client.GET("/api/takes/{take_id}/subject", { params: { path: { take_id: id } }, signal }),
      ),
  });
}

/** Mark a subject, or null to take the mark away. */
export function useMarkSubject(id: number) {
  const cache = useQueryClient();
  const changed = useChanged();
  const params = { path: { take_id: id } };
  return useMutation({
    mutationFn: (mark: Schemas["SubjectMark"] | null) =>
      mark === null
        ? dataOf(client.DELETE("/api/takes/{take_id}/subject", { params }))
        : dataOf(client.POST("/api/takes/{take_id}/subject", { params, body: mark })),
    onSuccess: (answer) => {
      cache.setQueryData<SubjectAnswer>(keys.subject(id), answer);
      changed("subjects");
    },
  });
}
