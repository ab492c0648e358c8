import { simulatedCamera } from "./simulatedCamera";

/** A stream like a camera's, and how to end it. */
export type Feed = { stream: MediaStream; close: () => void };
export type FeedSource = "connected" | "simulated";

/** Open a camera that is connected to this computer, or the stand-in one. */
export function openFeed(source: FeedSource): Promise<Feed> {
  return source === "simulated" ? simulatedCamera() : connectedCamera();
}

export const FEED_FAULTS: Record<FeedSource, string> = {
  connected: "No camera answered, or the browser was told not to use it.",
  simulated: "This browser could not play the simulated camera’s film.",
};

async function connectedCamera(): Promise<Feed> {
  if (!("mediaDevices" in navigator)) throw new Error("no camera");
  const stream = await navigator.mediaDevices.getUserMedia({
    video: { width: { ideal: 1920 }, height: { ideal: 1080 } },
    audio: false,
  });
  return { stream, close: () => stream.getTracks().forEach((track) => track.stop()) };
}
