import createClient from "openapi-fetch";
import { watchKept } from "./kept";
import type { components, paths } from "./schema";

export type { components };
type Schemas = components["schemas"];
export type Brief = Schemas["Brief"];
export type BandReading = Schemas["BandReading"];
export type ClipFacts = Schemas["ClipFacts"];
export type ErrorBody = Schemas["ErrorBody"];
export type ImportAnswer = Schemas["ImportAnswer"];
export type Judgement = Schemas["Judgement"];
export type PathColumns = Schemas["PathColumns"];
export type RemedyLine = Schemas["RemedyLine"];
export type TakeDetail = Schemas["TakeDetail"];
export type ShotDoubt = Schemas["ShotDoubt"];
export type RivalLine = Schemas["RivalLine"];
export type TakePage = Schemas["TakePage"];
export type TakeLine = Schemas["TakeLine"];
/** Parts that are left out stay as they are. */
export type TakeChange = Partial<Schemas["TakeChange"]>;
export type SpectrumColumns = Schemas["SpectrumColumns"];
export type TraceColumns = Schemas["TraceColumns"];
export type RemedyName = RemedyLine["remedy"];
export type FeelName = Brief["feel"];
export type ListQuery = NonNullable<paths["/api/takes"]["get"]["parameters"]["query"]>;
export type SortName = NonNullable<ListQuery["sort"]>;

export const client = createClient<paths>({ baseUrl: location.origin });
client.use(watchKept);

/** An error that the server explained: what happened, why, and what to do next. */
export class ExplainedError extends Error {
  readonly hint: string;
  /** The part of the request that it is about, where it is about one. */
  readonly field: string | null;
  /** Its short name, for programs; null where nothing answered. */
  readonly code: string | null;
  constructor(body: Pick<ErrorBody, "message" | "hint"> & Partial<ErrorBody>) {
    super(body.message);
    this.hint = body.hint;
    this.field = body.field ?? null;
    this.code = body.code ?? null;
  }
}

export const UNREACHABLE: Pick<ErrorBody, "message" | "hint"> = {
  message: "Ridgewind does not answer.",
  hint: "See whether it still runs in its terminal, then try again.",
};

/** Whether it was refused because it was changed in another window meanwhile. */
export function isChangedElsewhere(error: unknown): boolean {
  return error instanceof ExplainedError && error.code === "changed_elsewhere";
}

/** Whether much else is being worked out, and the same may be asked again soon. */
export function isCrowded(error: Error): boolean {
  return error instanceof ExplainedError && error.code === "crowded";
}

/** Whether nothing answered at all, so that the same request may be sent again. */
export function isUnreachable(error: Error): boolean {
  return error instanceof ExplainedError && error.message === UNREACHABLE.message;
}

/** The explanation inside any answer's body. */
export function explained(body: unknown): ExplainedError {
  if (typeof body === "object" && body !== null && "error" in body) {
    return new ExplainedError((body as { error: ErrorBody }).error);
  }
  return new ExplainedError(UNREACHABLE);
}

/** Data of an answer, or the explained error. */
export async function dataOf<T>(asked: Promise<{ data?: T; error?: unknown }>): Promise<T> {
  let answer: { data?: T; error?: unknown };
  try {
    answer = await asked;
  } catch {
    throw new ExplainedError(UNREACHABLE);
  }
  if (answer.data === undefined) throw explained(answer.error);
  return answer.data;
}
