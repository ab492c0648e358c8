import type { Feed } from "./feed";

const RATE = 30;

/** A film by the stand-in camera, played again and again as if a camera saw it. */
export async function simulatedCamera(): Promise<Feed> {
  const film = document.createElement("video");
  Object.assign(film, { src: "/api/standin/feed.mp4", loop: true, muted: true, playsInline: true });
  await film.play();
  const canvas = document.createElement("canvas");
  canvas.width = film.videoWidth;
  canvas.height = film.videoHeight;
  const picture = canvas.getContext("2d");
  if (!picture) throw new Error("this browser draws no pictures");
  const draw = () => picture.drawImage(film, 0, 0);
  draw();
  const timer = setInterval(draw, 1000 / RATE);
  const stream = canvas.captureStream(RATE);
  return {
    stream,
    close: () => {
      clearInterval(timer);
      film.pause();
      film.removeAttribute("src");
      stream.getTracks().forEach((track) => track.stop());
    },
  };
}
