const KINDS = ["video/mp4;codecs=avc1", "video/webm;codecs=vp9", "video/webm"];
const BITS_PER_S = 12_000_000;
const PIECE_MS = 1000;

/** A recording that runs: stop hands its film over, drop forgets it. */
export type Recording = { stop: () => void; drop: () => void };

/** Record a stream; the film is handed over once it was stopped, named by its kind of camera and
 * the time. */
export function record(
  stream: MediaStream,
  camera: string,
  onFilm: (film: File) => void,
): Recording {
  const kind = KINDS.find((one) => MediaRecorder.isTypeSupported(one));
  const made = new MediaRecorder(stream, {
    ...(kind ? { mimeType: kind } : {}),
    videoBitsPerSecond: BITS_PER_S,
  });
  const parts: Blob[] = [];
  let wanted = true;
  made.ondataavailable = (event) => event.data.size > 0 && parts.push(event.data);
  made.onstop = () => {
    if (!wanted) return;
    const type = made.mimeType || "video/webm";
    const time = new Date().toLocaleTimeString(undefined, { hour12: false }).replaceAll(":", ".");
    const name = `${camera} ${time}.${type.includes("mp4") ? "mp4" : "webm"}`;
    onFilm(new File(parts, name, { type }));
  };
  made.start(PIECE_MS);
  const end = (keep: boolean) => {
    wanted &&= keep;
    if (made.state === "recording") made.stop();
  };
  return { stop: () => end(true), drop: () => end(false) };
}
