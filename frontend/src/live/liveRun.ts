import { beginLive, endLive, feedPictures, feedRates, type LiveSetting } from "../api/live";
import { explained, ExplainedError } from "../api/client";
import { FEED_FAULTS, openFeed, type FeedSource } from "../camera/feed";
import { watchFrames, type Frame } from "../camera/frames";
import { SENSOR_FAULTS, watchTurning, type SensorSource } from "../camera/motionSensor";
import { record } from "../camera/recording";
import type { Turning } from "../camera/turning";
import { LiveLine, type Heard } from "./liveLine";

export type LiveSource = "camera" | "simulated-camera" | "sensor" | "simulated-sensor";
/** What ran live, to be kept as a take: a film, or turning rates as CSV. */
export type Kept = { kind: "film"; film: File } | { kind: "log"; csv: string };

export type LiveRun = {
  stream: MediaStream | null;
  /** End it; gives what can be kept of it. */
  stop: () => Promise<Kept | null>;
};

type Told = { heard: (heard: Heard) => void; failed: (error: Error) => void };

/** Nothing longer is kept of one run. */
const LONGEST_KEPT_S = 600;

const clock = {
  now: () => performance.now(),
  later: (act: () => void, ms: number) => void setTimeout(act, ms),
};

/** Begin to meter. Fails with an explained error where there is nothing to meter, and where it was
 * left meanwhile: a camera or sensor that answers after that is let go at once. */
export function beginRun(
  source: LiveSource,
  setting: LiveSetting,
  told: Told,
  left: AbortSignal,
): Promise<LiveRun> {
  if (source === "camera") return pictures("connected", setting, told, left);
  if (source === "simulated-camera") return pictures("simulated", setting, told, left);
  return turning(source === "sensor" ? "phone" : "simulated", setting, told, left);
}

async function pictures(
  source: FeedSource,
  setting: LiveSetting,
  told: Told,
  left: AbortSignal,
): Promise<LiveRun> {
  const feed = await openFeed(source).catch(() => fault(FEED_FAULTS[source]));
  const close = () => feed.close();
  left.addEventListener("abort", close, { once: true });
  if (left.aborted) close();
  let meter = "";
  const line = new LiveLine<Frame>({
    ...clock,
    ...told,
    failed: (error) => told.failed(asError(error)),
    send: (frames) =>
      feedPictures(
        meter,
        frames.map((one) => one.t_s),
        frames.map((one) => one.luma),
      ),
  });
  try {
    left.throwIfAborted();
    const watch = await watchFrames(feed.stream, (frame) => meter && line.push(frame));
    const { width, height } = watch;
    try {
      left.throwIfAborted();
      meter = await beginLive({ width, height, target: setting.target, screen: setting.screen });
      left.throwIfAborted();
    } catch (error) {
      watch.stop();
      if (meter) void endLive(meter);
      throw error;
    }
    let film: ((file: File) => void) | null = null;
    const made = new Promise<File>((resolve) => (film = resolve));
    const name = source === "simulated" ? "Simulated camera" : "Live";
    const recording = record(feed.stream, name, (file) => film?.(file));
    const limit = setTimeout(recording.stop, 1000 * LONGEST_KEPT_S);
    left.removeEventListener("abort", close);
    return {
      stream: feed.stream,
      stop: async () => {
        clearTimeout(limit);
        line.stop();
        recording.stop();
        const kept = await made;
        watch.stop();
        feed.close();
        void endLive(meter);
        return { kind: "film", film: kept };
      },
    };
  } catch (error) {
    feed.close();
    throw asError(error);
  }
}

async function turning(
  source: SensorSource,
  setting: LiveSetting,
  told: Told,
  left: AbortSignal,
): Promise<LiveRun> {
  let meter = "";
  const rows = ["time_s,pan_deg_s,tilt_deg_s,roll_deg_s"];
  const line = new LiveLine<Turning>({
    ...clock,
    ...told,
    failed: (error) => told.failed(asError(error)),
    send: (samples) =>
      feedRates(meter, {
        t_s: samples.map((one) => one.t_s),
        pan_deg_s: samples.map((one) => one.pan),
        tilt_deg_s: samples.map((one) => one.tilt),
        roll_deg_s: samples.map((one) => one.roll),
      }),
  });
  const { target, screen, focal_eq_mm } = setting;
  meter = await beginLive({ focal_eq_mm, target, screen });
  const hear = (one: Turning) => {
    line.push(one);
    if (one.t_s > LONGEST_KEPT_S) return;
    rows.push([one.t_s, one.pan, one.tilt, one.roll].map((value) => value.toFixed(5)).join(","));
  };
  const unwatch = await watchTurning(source, hear, left).catch(() => {
    void endLive(meter);
    return fault(SENSOR_FAULTS[source]);
  });
  return {
    stream: null,
    stop: () => {
      unwatch();
      line.stop();
      void endLive(meter);
      return Promise.resolve(rows.length > 2 ? { kind: "log", csv: rows.join("\n") + "\n" } : null);
    },
  };
}

function fault(message: string): never {
  throw new ExplainedError({ message, hint: "Choose another source, or allow it and try again." });
}

const asError = (error: unknown) => (error instanceof Error ? error : explained(null));
