import { client, dataOf, explained, ExplainedError, isUnreachable } from "./client";
import type { ImportAnswer } from "./client";

/** How long a server that is away is waited for, a try every two seconds. */
const MOST_TRIES = 30;
const RETRY_MS = 2000;
const LONGEST_NAME = 300;

/** Send a film in pieces, and make it a take. A server that is away for a while is waited for.
 * onProgress: the share that has arrived, 0 to 1. */
export async function sendFilm(
  file: File,
  onProgress: (share: number) => void,
  signal: AbortSignal,
): Promise<ImportAnswer> {
  const body = { name: file.name.slice(-LONGEST_NAME), size_bytes: file.size };
  const begun = await dataOf(client.POST("/api/uploads", { body, signal }));
  const path = { key: begun.key };
  signal.addEventListener(
    "abort",
    () => void client.DELETE("/api/uploads/{key}", { params: { path } }),
  );
  for (let sent = 0; sent < file.size;) {
    const piece = file.slice(sent, sent + begun.most_piece_bytes);
    await patiently(() => put(begun.key, sent, piece, signal), signal);
    sent += piece.size;
    onProgress(sent / file.size);
  }
  return dataOf(client.POST("/api/uploads/{key}/take", { params: { path }, signal }));
}

async function put(key: string, offset: number, piece: Blob, signal: AbortSignal) {
  let answer: Response;
  try {
    answer = await fetch(`/api/uploads/${key}?offset=${offset}`, {
      method: "PUT",
      body: piece,
      headers: { "Content-Type": "application/octet-stream" },
      signal,
    });
  } catch {
    throw explained(null);
  }
  if (!answer.ok) throw explained(await answer.json().catch(() => null));
}

async function patiently(send: () => Promise<void>, signal: AbortSignal): Promise<void> {
  for (let tries = 1; ; tries += 1) {
    try {
      return await send();
    } catch (error) {
      const passing = error instanceof ExplainedError && isUnreachable(error);
      if (!passing || signal.aborted || tries === MOST_TRIES) throw error;
      await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
    }
  }
}
