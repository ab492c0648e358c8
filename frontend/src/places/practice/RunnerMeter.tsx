import { useEffect, useEffectEvent } from "react";
import { useLiveSetting } from "../../api/live";
import { againstTarget, gust as gustWords, seconds } from "../../formats";
import { useLive } from "../../live/useLive";
import type { MeterChoice } from "./choices";

type Props = { source: Exclude<MeterChoice, "none">; target: number; on: boolean; sound: boolean };

/** Steadiness of a hold while it is filmed: silent while calm, a tone above the target. on: from the
 * count-in to the end of the take. */
export function RunnerMeter({ source, target, on, sound }: Props) {
  const setting = useLiveSetting().data;
  const live = useLive(sound);
  const turn = useEffectEvent((wanted: boolean) => {
    if (wanted && setting) live.start(source, { ...setting, target });
    else live.stop();
  });
  const ready = setting !== undefined;
  useEffect(() => turn(on && ready), [on, ready]);
  const gust = live.answer?.gust ?? null;
  if (live.fault) {
    return (
      <p role="status" className="px-4 text-center text-note text-ember-deep">
        No meter: {live.fault.message} The session goes on.
      </p>
    );
  }
  if (!on) return null;
  return (
    <p
      className="px-4 text-center text-far-note"
      data-testid="runner-meter"
      data-best={live.answer?.best_s ?? 0}
    >
      <b className="figure text-far-heading">{gust === null ? "–" : gustWords(gust)}</b>{" "}
      {gust !== null && againstTarget(gust, target)?.words}
      {live.answer && `, calm for ${seconds(live.answer.calm_s)}`}
      {live.record_s > 0 && `, to beat ${seconds(live.record_s)}`}
      {source === "simulated-sensor" && " (simulated)"}
    </p>
  );
}
