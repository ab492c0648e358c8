import { describe, expect, it } from "vitest";
import type { LiveAnswer } from "../api/live";
import { LiveLine, type Sample } from "./liveLine";

const ANSWER = { gust: 4 } as LiveAnswer;

/** A line on a made clock: what it sent, and how long each answer takes. */
function madeLine(answer_ms: number, fails = false) {
  let now = 0;
  const plans: { at: number; act: () => void }[] = [];
  const sent: number[][] = [];
  const lags: number[] = [];
  let thin = 1;
  let faults = 0;
  const line = new LiveLine<Sample>({
    now: () => now,
    later: (act, ms) => plans.push({ at: now + ms, act }),
    heard: (heard) => {
      lags.push(heard.lag_ms);
      thin = heard.thin;
    },
    failed: () => (faults += 1),
    send: (samples) => {
      sent.push(samples.map((one) => one.at));
      return new Promise((resolve, reject) =>
        plans.push({
          at: now + answer_ms,
          act: () => (fails ? reject(new Error()) : resolve(ANSWER)),
        }),
      );
    },
  });
  const run = async (seconds: number, gap_ms = 33) => {
    const end = now + 1000 * seconds;
    let next = now;
    while (now < end) {
      now += 1;
      for (const plan of plans.filter((one) => one.at <= now)) {
        plans.splice(plans.indexOf(plan), 1);
        plan.act();
        for (let k = 0; k < 4; k += 1) await Promise.resolve();
      }
      if (now >= next) {
        line.push({ t_s: now / 1000, at: now });
        next += gap_ms;
      }
    }
  };
  return { line, run, sent, lags, told: () => ({ thin, faults }) };
}

describe("samples on their way to the meter", () => {
  it("go a few together, each once and in order, soon", async () => {
    const { run, sent, lags, told } = madeLine(20);
    await run(3);
    const all = sent.flat();
    expect(all).toEqual([...all].sort((a, b) => a - b));
    expect(all.length).toBeGreaterThan(80);
    expect(Math.max(...lags)).toBeLessThan(150);
    expect(told()).toEqual({ thin: 1, faults: 0 });
  });
  it("are thinned where measuring is slower than they come, and the line stays short", async () => {
    const { run, sent, told } = madeLine(900);
    await run(20);
    expect(told().thin).toBe(4);
    expect(Math.max(...sent.map((batch) => batch.length))).toBeLessThan(30);
  });
  it("go on after a fault, and stop when told to", async () => {
    const { line, run, sent, told } = madeLine(20, true);
    await run(1);
    expect(told().faults).toBeGreaterThan(3);
    line.stop();
    const before = sent.length;
    await run(1);
    expect(sent.length).toBe(before);
  });
});
