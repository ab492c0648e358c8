// @vitest-environment happy-dom
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { askForTurning, watchTurning } from "./motionSensor";
import type { Turning } from "./turning";

vi.mock("../api/live", () => ({
  // Three hundred samples at 210 a second, of which every third is given.
  simulatedRates: () =>
    Promise.resolve(
      ["t,x,y,z", ...Array.from({ length: 300 }, (_, k) => `${(k * 1e9) / 210},0,0.1,0`)].join(
        "\n",
      ),
    ),
}));

type Asked = { requestPermission?: () => Promise<string> };
class Motion extends Event {
  rotationRate: { alpha: number | null; beta: number | null; gamma: number | null } | null = null;
}
const sensor = Motion as unknown as Asked;

function turns(alpha: number | null, beta: number | null, gamma: number | null) {
  const event = new Motion("devicemotion");
  event.rotationRate = { alpha, beta, gamma };
  window.dispatchEvent(event);
}

beforeEach(() => {
  vi.useFakeTimers();
  vi.stubGlobal("DeviceMotionEvent", Motion);
});
afterEach(() => {
  delete sensor.requestPermission;
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

/** Watch a phone that turns at once. */
async function watched(samples: Turning[]) {
  const begun = watchTurning("phone", (one) => samples.push(one));
  await vi.advanceTimersByTimeAsync(1);
  turns(3, 1, 2);
  await vi.advanceTimersByTimeAsync(2000);
  return begun;
}

it("gives samples from the first on, and none once it is stopped", async () => {
  const samples: Turning[] = [];
  const stop = await watched(samples);
  expect(samples).toHaveLength(1);
  expect(samples[0]).toMatchObject({ t_s: 0, pan: -2, tilt: 1, roll: -3 });
  turns(0, 0, 0);
  expect(samples).toHaveLength(2);
  stop();
  turns(0, 0, 0);
  expect(samples).toHaveLength(2);
});

it("leaves out what is only half told", async () => {
  const samples: Turning[] = [];
  const stop = await watched(samples);
  turns(null, 1, 1);
  expect(samples).toHaveLength(1);
  stop();
});

it("fails where there is no sensor, where it is silent, and where it may not be heard", async () => {
  const silent = watchTurning("phone", () => undefined).catch((error: Error) => error.message);
  await vi.advanceTimersByTimeAsync(2000);
  expect(await silent).toBe("no sensor");
  sensor.requestPermission = () => Promise.resolve("denied");
  await expect(watchTurning("phone", () => undefined)).rejects.toThrow("not allowed");
  sensor.requestPermission = () => Promise.reject(new Error("asked without a tap"));
  expect(await askForTurning()).toBe(false);
  sensor.requestPermission = () => Promise.resolve("granted");
  expect(await askForTurning()).toBe(true);
});

it("goes on and on with the simulated phone, in growing time", async () => {
  const samples: Turning[] = [];
  const stop = await watchTurning("simulated", (one) => samples.push(one));
  await vi.advanceTimersByTimeAsync(4000);
  stop();
  const count = samples.length;
  expect(count).toBeGreaterThan(265); // seventy a second, although the log has a hundred
  expect(count).toBeLessThan(285);
  for (let k = 1; k < count; k++) expect(samples[k]?.t_s).toBeGreaterThan(samples[k - 1]?.t_s ?? 0);
  await vi.advanceTimersByTimeAsync(1000);
  expect(samples).toHaveLength(count);
});

it("hears nothing more once it was left, also before the first value", async () => {
  const left = new AbortController();
  const samples: Turning[] = [];
  const begun = watchTurning("phone", (one) => samples.push(one), left.signal);
  const refused = expect(begun).rejects.toThrow();
  await vi.advanceTimersByTimeAsync(100);
  turns(1, 2, 3);
  expect(samples).toHaveLength(1);
  left.abort();
  turns(1, 2, 3);
  await vi.advanceTimersByTimeAsync(2000);
  await refused;
  turns(1, 2, 3);
  expect(samples).toHaveLength(1);
});
