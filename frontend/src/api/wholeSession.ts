import type { components } from "./schema";

type SessionDetail = components["schemas"]["SessionDetail"];

/** A session as it is told today: a phone that is away may hold an answer from before takes had
 * outcomes, and runs it all the same. */
export const wholeSession = (
  detail: Omit<SessionDetail, "outcomes"> & Partial<SessionDetail>,
): SessionDetail => ({ outcomes: [], ...detail });
