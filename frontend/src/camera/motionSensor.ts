import { simulatedRates } from "../api/live";
import { samplesOf, turningOf, type Turning } from "./turning";

export type SensorSource = "phone" | "simulated";

export const SENSOR_FAULTS: Record<SensorSource, string> = {
  phone: "This device gives no turning rates, or the browser was told not to use them.",
  simulated: "The simulated phone’s turning rates could not be read.",
};

const SILENT_MS = 1500;
const TICK_MS = 50;

type Asking = { requestPermission?: () => Promise<"granted" | "denied"> };

/** Watch the motion sensor; gives how to stop it. Fails where there is none. left: aborted when
 * nobody waits any more: it is stopped at once then, also before it has answered. */
export async function watchTurning(
  source: SensorSource,
  onSample: (sample: Turning) => void,
  left?: AbortSignal,
): Promise<() => void> {
  const stop = await (source === "simulated" ? simulated(onSample) : own(onSample, left));
  if (left?.aborted) {
    stop();
    left.throwIfAborted();
  }
  return stop;
}

/** Whether this device may tell how it turns; call it as somebody taps. */
export async function askForTurning(): Promise<boolean> {
  if (!("DeviceMotionEvent" in window)) return false;
  const asking = DeviceMotionEvent as unknown as Asking;
  if (!asking.requestPermission) return true;
  return (await asking.requestPermission().catch(() => "denied")) === "granted";
}

async function own(onSample: (sample: Turning) => void, left?: AbortSignal): Promise<() => void> {
  if (!(await askForTurning())) throw new Error("no sensor, or not allowed");
  left?.throwIfAborted();
  let first: number | null = null;
  const hear = (event: DeviceMotionEvent) => {
    const rate = event.rotationRate;
    if (rate?.alpha == null || rate.beta == null || rate.gamma == null) return;
    const at = event.timeStamp;
    first ??= at;
    const turned = screen.orientation?.angle ?? 0;
    const turning = turningOf({ x: rate.beta, y: rate.gamma, z: rate.alpha }, turned);
    onSample({ t_s: (at - first) / 1000, at, ...turning });
  };
  window.addEventListener("devicemotion", hear, { signal: left });
  const stop = () => window.removeEventListener("devicemotion", hear);
  await new Promise((resolve) => setTimeout(resolve, SILENT_MS));
  if (first === null) {
    stop();
    throw new Error("no sensor");
  }
  return stop;
}

async function simulated(onSample: (sample: Turning) => void): Promise<() => void> {
  const samples = samplesOf(await simulatedRates());
  const length = (samples.at(-1)?.t_s ?? 0) + (samples[1]?.t_s ?? 0);
  const began = performance.now();
  let given = 0;
  const timer = setInterval(() => {
    const passed = (performance.now() - began) / 1000;
    for (;;) {
      const one = samples[given % samples.length];
      const t_s = (one?.t_s ?? Infinity) + Math.floor(given / samples.length) * length;
      if (!one || t_s > passed) return;
      onSample({ ...one, t_s, at: began + 1000 * t_s });
      given += 1;
    }
  }, TICK_MS);
  return () => clearInterval(timer);
}
