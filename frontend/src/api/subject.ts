import { useEffect, useRef } from "react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { client, dataOf, type components } from "./client";
import { keys, useChanged } from "./keys";

type Schemas = components["schemas"];
export type SubjectAnswer = Schemas["SubjectAnswer"];
export type PointPath = Schemas["PointPath"];

const POLL_MS = 300;

/** The marked subject of a take: where it was, and how near the middle it stayed. */
export function useSubject(id: number) {
  return useQuery({
    queryKey: keys.subject(id),
    queryFn: ({ signal }) =>
      dataOf(
        client.GET("/api/takes/{take_id}/subject", { params: { path: { take_id: id } }, signal }),
      ),
    refetchInterval: ({ state }) => (state.data?.following ? POLL_MS : false),
  });
}

/** Tells the other views of a take once its subject has been followed. */
export function useFollowed(id: number, subject: SubjectAnswer | undefined): void {
  const changed = useChanged();
  const was = useRef(false);
  const following = Boolean(subject?.following);
  useEffect(() => {
    if (was.current && !following) changed("subjects");
    was.current = following;
  }, [following, changed, id]);
}

export type SubjectAct =
  { act: "mark"; mark: Schemas["SubjectMark"] } | { act: "stop" | "let go" | "bring back" };

/** Mark a subject, which a worker follows, stop it, let the subject go, or bring it back. */
export function useSubjectAct(id: number) {
  const cache = useQueryClient();
  const changed = useChanged();
  return useMutation({
    mutationFn: (wanted: SubjectAct) => dataOf(sent(id, wanted)),
    onSuccess: (answer) => {
      cache.setQueryData<SubjectAnswer>(keys.subject(id), answer);
      changed("subjects");
    },
  });
}

function sent(id: number, wanted: SubjectAct) {
  const params = { path: { take_id: id } };
  switch (wanted.act) {
    case "mark":
      return client.POST("/api/takes/{take_id}/subject", { params, body: wanted.mark });
    case "stop":
      return client.DELETE("/api/takes/{take_id}/subject/following", { params });
    case "let go":
      return client.DELETE("/api/takes/{take_id}/subject", { params });
    case "bring back":
      return client.POST("/api/takes/{take_id}/subject/restore", { params });
  }
}
