import type { QueryClient } from "@tanstack/react-query";

/** Whether further changes of the same row wait behind the one that is answered just now. Its answer
 * knows nothing of them, and what they show already must stay. */
export function othersWait(cache: QueryClient, row: string): boolean {
  const waiting = cache.getMutationCache().findAll({
    status: "pending",
    predicate: ({ options }) => options.scope?.id === row,
  });
  return waiting.length > 1;
}
