import * as format from "../../../formats";
import { Facts } from "../../../ui/Facts";
import { Field } from "../../../ui/Field";
import { QuantityField } from "../../../ui/QuantityField";
import { Segments } from "../../../ui/Segments";
import { useUnits } from "../../../ui/useUnits";
import { holdWords } from "./hold";
import { NoDrawing, PanelFrame } from "./PanelFrame";
import type { PanelProps } from "./panel";
import { ShutterScale } from "./ShutterScale";
import { TimeStrip } from "./TimeStrip";

const LAMPS = [
  { value: "none", words: "Daylight" },
  { value: "50", words: "50 Hz lamps" },
  { value: "60", words: "60 Hz lamps" },
] as const;

/** Frame rate against delivery: what it slows, what it costs, and which shutter fits. */
export function TimePanel({ answer, setup, change, problem }: PanelProps) {
  const { inUnits } = useUnits();
  const { time } = answer;
  const ask = setup.bench.time;
  const put = (part: Partial<typeof ask>) => change({ time: { ...ask, ...part } });
  const safe = ask.mains_hz === 60 ? time?.nearest_safe_60 : time?.nearest_safe_50;
  return (
    <PanelFrame
      words="Time"
      drawing={
        time ? (
          <div className="space-y-6">
            <TimeStrip time={time} rateHz={setup.optics.rate_hz} />
            <ShutterScale time={time} chosen={setup.optics.shutter} mainsHz={ask.mains_hz} />
          </div>
        ) : (
          <NoDrawing words="The time cannot be drawn." />
        )
      }
    >
      <div className="grid grid-cols-2 gap-x-4 gap-y-3">
        <QuantityField
          label="Takes in the session"
          quantity="count"
          value={ask.takes}
          range={{ min: 1, max: 100 }}
          problem={problem("takes")}
          onChange={(takes) => put({ takes: Math.round(takes) })}
        />
        <QuantityField
          label="Head and tail of each"
          quantity="seconds"
          value={ask.spare_s}
          range={{ min: 0, max: 30 }}
          problem={problem("spare_s")}
          onChange={(spare_s) => put({ spare_s })}
        />
        <div className="col-span-2">
          <Field words="Light">
            <Segments
              label="Light"
              value={ask.mains_hz === null ? "none" : (String(ask.mains_hz) as "50" | "60")}
              options={LAMPS}
              onChange={(next) =>
                put({ mains_hz: next === "none" ? null : next === "50" ? 50 : 60 })
              }
            />
          </Field>
        </div>
      </div>
      {time && (
        <>
          <Facts
            facts={[
              { words: "Plays at", value: format.share(time.playback) },
              { words: "Hold the shot", value: holdWords(time, inUnits) },
              { words: "It lasts on screen", value: inUnits("seconds", time.on_screen_s) },
              { words: "Light lost", value: `${time.light_lost_stops.toFixed(1)} stops` },
              { words: "Shutter nearest to half the interval", value: shutter(time.nearest) },
              ...(ask.mains_hz === null
                ? []
                : [
                    {
                      words: `Nearest without flicker at ${ask.mains_hz} Hz`,
                      value: shutter(safe ?? null),
                      warns: safe === null,
                    },
                  ]),
              { words: "Recorded in the session", value: minutes(time.recorded_s) },
              { words: "Room on the card", value: format.fileSize(time.storage_gb * 1e9) },
            ]}
          />
          <Lost time={time} />
        </>
      )}
    </PanelFrame>
  );
}

export const shutter = (denominator: number | null) =>
  denominator === null ? "none fits" : `1/${denominator} s`;

function minutes(seconds: number): string {
  return seconds < 90 ? format.seconds(seconds) : `${(seconds / 60).toFixed(1)} min`;
}

function Lost({ time }: { time: { lost: string[]; repeats: boolean } }) {
  return (
    <div className="space-y-1">
      <h3 className="label-wide">Switched off by this rate</h3>
      {time.lost.length === 0 && !time.repeats && <p>Nothing.</p>}
      {time.lost.length > 0 && (
        <p className="font-semibold text-ember-deep">
          {time.lost
            .map((one, k) => (k === 0 ? one[0]?.toUpperCase() + one.slice(1) : one))
            .join(", ")}
        </p>
      )}
      {time.repeats && (
        <p className="text-ember-deep">
          The rate is under the delivery rate: frames must be repeated, which stutters.
        </p>
      )}
    </div>
  );
}
