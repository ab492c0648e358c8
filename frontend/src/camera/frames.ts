/** A picture of a stream. at: when it was seen, ms of the page's clock. luma: a byte a point. */
export type Frame = { t_s: number; at: number; luma: Uint8Array<ArrayBuffer> };
export type FrameWatch = { width: number; height: number; stop: () => void };

const LONG_SIDE_PX = 480;
/** A screen shows a picture now and then a sixtieth of a second early. */
const LEAST_GAP_MS = 24;

/** Watch the pictures of a stream, small and grey, up to thirty a second. */
export async function watchFrames(
  stream: MediaStream,
  onFrame: (frame: Frame) => void,
): Promise<FrameWatch> {
  const film = document.createElement("video");
  Object.assign(film, { srcObject: stream, muted: true, playsInline: true });
  await film.play();
  const scale = Math.min(1, LONG_SIDE_PX / Math.max(film.videoWidth, film.videoHeight));
  const width = Math.round(film.videoWidth * scale);
  const height = Math.round(film.videoHeight * scale);
  const canvas = new OffscreenCanvas(width, height);
  const picture = canvas.getContext("2d", { willReadFrequently: true });
  if (!picture) throw new Error("this browser draws no pictures");
  picture.imageSmoothingQuality = "high";
  let first: number | null = null;
  let last = -Infinity;
  let over = false;
  const look = (now: number, data: VideoFrameCallbackMetadata) => {
    if (over) return;
    film.requestVideoFrameCallback(look);
    // Where a camera says when it saw a picture, that is when; else, when it was shown.
    const at = data.captureTime ?? data.expectedDisplayTime ?? now;
    if (at - last < LEAST_GAP_MS) return;
    last = at;
    first ??= at; // a camera saw its first picture before the page did
    picture.drawImage(film, 0, 0, width, height);
    const { data: colours } = picture.getImageData(0, 0, width, height);
    onFrame({ t_s: (at - first) / 1000, at, luma: lumaOf(colours) });
  };
  film.requestVideoFrameCallback(look);
  return {
    width,
    height,
    stop: () => {
      over = true;
      film.pause();
      film.srcObject = null;
    },
  };
}

/** Brightness of red, green, blue and alpha, as films weigh them. */
export function lumaOf(colours: Uint8ClampedArray): Uint8Array<ArrayBuffer> {
  const luma = new Uint8Array(colours.length >> 2);
  for (let k = 0, at = 0; k < luma.length; k += 1, at += 4) {
    luma[k] =
      (77 * (colours[at] ?? 0) + 150 * (colours[at + 1] ?? 0) + 29 * (colours[at + 2] ?? 0)) >> 8;
  }
  return luma;
}
