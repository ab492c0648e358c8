import {
  useMutation,
  useMutationState,
  useQueryClient,
  type QueryKey,
} from "@tanstack/react-query";
import { useEffect } from "react";
import { isUnreachable } from "./client";
import { askAgain, useChanged, type Change as Changed } from "./keys";
import { othersWait } from "./later";
import { waitingStore } from "./waiting";

const MOST_TRIES = 3;
const LONGEST_WAIT_MS = 5000;

type Box<Change, Detail> = {
  /** Names it in the browser, where its changes wait. */
  name: string;
  /** Names the row in which its changes wait for each other, and for others of the same thing. */
  row: string;
  /** Where what is changed is kept for the pages. */
  keyOf: (id: number) => QueryKey;
  send: (id: number, change: Change) => Promise<Detail>;
  /** What is changed as it will be once the change is kept. */
  shown: (detail: Detail, change: Change) => Detail;
  /** Whether a change outlives the page: it is sent by the next opening. */
  outlives: (change: Change) => boolean;
  /** What else is out of date by it. */
  changed: Changed;
};

/**
 * Changes of one thing, one after the other, each answered with all of it. They show at once, and
 * are sent again for as long as the server is away.
 */
export function outbox<Change, Detail>(box: Box<Change, Detail>) {
  const waiting = waitingStore<Change>(box.name);
  const mutationKeyOf = (id: number) => [box.name, id];

  function useSend(id: number) {
    const cache = useQueryClient();
    const changed = useChanged();
    const queryKey = box.keyOf(id);
    const mutationKey = mutationKeyOf(id);
    return useMutation({
      mutationKey,
      mutationFn: (change: Change) => box.send(id, change),
      scope: { id: `${box.row}-${id}` },
      retry: (tries, error) => isUnreachable(error) || tries < MOST_TRIES,
      retryDelay: (tries) => Math.min(LONGEST_WAIT_MS, 500 * 2 ** tries),
      onMutate: (change) => {
        if (box.outlives(change)) waiting.keep(id, change);
        cache.setQueryData<Detail>(queryKey, (detail) => detail && box.shown(detail, change));
      },
      onError: () => askAgain(cache, queryKey),
      onSettled: (_, __, change) => box.outlives(change) && waiting.drop(id, change),
      onSuccess: (detail) => {
        // An answer knows nothing of the changes that still wait behind it.
        if (!othersWait(cache, `${box.row}-${id}`)) cache.setQueryData<Detail>(queryKey, detail);
        changed(box.changed);
      },
    });
  }

  return {
    useSend,
    /** Send what a page that was closed had not sent any more; once for each opening. */
    useLeft(id: number) {
      const { mutate } = useSend(id);
      useEffect(() => {
        for (const change of waiting.takeLeft(id)) mutate(change);
      }, [id, mutate]);
    },
    /** Whether a change waits for a server that does not answer. */
    useUnsent(id: number): boolean {
      const failures = useMutationState({
        filters: { mutationKey: mutationKeyOf(id), status: "pending" },
        select: (mutation) => mutation.state.failureCount,
      });
      return failures.some((count) => count > 0);
    },
  };
}
