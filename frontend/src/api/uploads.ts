import { client, dataOf, explained, ExplainedError, isUnreachable, UNREACHABLE } from "./client";
import type { ImportAnswer } from "./client";

/** How long a server that is away is waited for, a try every two seconds. */
const MOST_TRIES = 90;
const RETRY_MS = 2000;
const LONGEST_NAME = 300;
const PIECE_BYTES = 8 << 20;

/**
 * Send a film in pieces, each with its checksum, and make it a take. Where the line is cut it goes on
 * from what has arrived, also after a reload with the same film.
 * onProgress: the share that has arrived, 0 to 1.
 */
export async function sendFilm(
  file: File,
  onProgress: (share: number) => void,
  signal: AbortSignal,
): Promise<ImportAnswer> {
  const path = { key: await sendFile(file, onProgress, signal) };
  return patiently(
    () => dataOf(client.POST("/api/uploads/{key}/take", { params: { path }, signal })),
    signal,
  );
}

/** Send a file in pieces; returns the key under which all of it has arrived. */
export async function sendFile(
  file: File,
  onProgress: (share: number) => void,
  signal: AbortSignal,
): Promise<string> {
  const { Upload, DetailedError } = await import("tus-js-client");
  const sums = new Map<number, string>();
  return new Promise((resolve, reject) => {
    const upload = new Upload(file, {
      endpoint: "/api/uploads",
      chunkSize: PIECE_BYTES,
      retryDelays: Array<number>(MOST_TRIES).fill(RETRY_MS),
      metadata: { filename: file.name.slice(-LONGEST_NAME) },
      removeFingerprintOnSuccess: true,
      fileReader: {
        openFile: () =>
          Promise.resolve({
            size: file.size,
            slice: async (from: number, to: number) => {
              const value = file.slice(from, to);
              sums.set(from, await checksum(value));
              return { value, size: value.size, done: to >= file.size };
            },
            close: () => undefined,
          }),
      },
      onBeforeRequest: (request) => {
        const offset = request.getHeader("Upload-Offset");
        const sum = offset === undefined ? undefined : sums.get(Number(offset));
        if (sum) request.setHeader("Upload-Checksum", `sha256 ${sum}`);
      },
      onShouldRetry: (error) => {
        const status = error instanceof DetailedError ? error.originalResponse?.getStatus() : 0;
        return !signal.aborted && (!status || [409, 423, 460].includes(status));
      },
      onProgress: (sent, whole) => onProgress(whole ? sent / whole : 0),
      onSuccess: () => resolve(upload.url?.split("/").at(-1) ?? ""),
      onError: (error) => {
        const body = error instanceof DetailedError ? error.originalResponse?.getBody() : null;
        reject(explained(parsed(body)));
      },
    });
    signal.addEventListener("abort", () => {
      void upload.abort(true).catch(() => undefined);
      reject(new ExplainedError(UNREACHABLE));
    });
    void upload
      .findPreviousUploads()
      .then((before) => before[0] && upload.resumeFromPreviousUpload(before[0]))
      .finally(() => !signal.aborted && upload.start());
  });
}

async function checksum(piece: Blob): Promise<string> {
  const digest = await crypto.subtle.digest("SHA-256", await piece.arrayBuffer());
  return btoa(String.fromCharCode(...new Uint8Array(digest)));
}

function parsed(body: string | null | undefined): unknown {
  try {
    return JSON.parse(body ?? "null");
  } catch {
    return null;
  }
}

async function patiently<T>(send: () => Promise<T>, signal: AbortSignal): Promise<T> {
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
