import { useState } from "react";
import { useLookChange, type Joined, type Look } from "../../api/joined";
import { Key } from "../../keys/Key";
import { useKeys } from "../../keys/useKeys";
import { Button } from "../../ui/Button";
import { FaultView } from "../../ui/FaultView";
import { NumberField } from "../../ui/NumberField";
import { Segments } from "../../ui/Segments";
import { beatsOf, counted } from "./tempo";

const SHAPES = ["16:9", "9:16", "1:1", "4:5", "2.39:1"] as const;
const AS_PLANNED = "planned";

type Props = { id: number; joined: Joined; onSnapped: () => void };

/** How the whole is shown: its shape, and the beat that it is cut to. */
export function LookStrip({ id, joined, onSnapped }: Props) {
  const change = useLookChange(id);
  const [taps, setTaps] = useState<number[]>([]);
  const { shape, beats_per_min } = joined;
  const put = (part: Partial<Look>) => change.mutate({ shape, beats_per_min, ...part });
  const tap = (now_ms: number) => {
    const next = counted(taps, now_ms);
    setTaps(next);
    const beats = beatsOf(next);
    if (beats !== null && beats !== beats_per_min) put({ beats_per_min: beats });
  };
  const snap = () => {
    if (beats_per_min === null) return;
    change.mutate("snap", { onSuccess: onSnapped });
  };
  const onBeat = joined.cuts.filter((cut) => cut.beat).length;
  useKeys({
    "Tap the beat": { m: () => tap(performance.now()) },
    ...(beats_per_min !== null && { "Cuts onto the beats": { s: snap } }),
  });
  return (
    <section
      aria-label="How it is shown"
      className="flex flex-wrap items-center gap-x-6 gap-y-2 px-4 pb-3 sm:px-8"
    >
      <div className="flex flex-wrap items-center gap-2">
        <span className="label-wide">Shape</span>
        <Segments
          label="Shape"
          value={shape ?? AS_PLANNED}
          options={[
            { value: AS_PLANNED, words: "as the brief" },
            ...SHAPES.map((value) => ({ value, words: value })),
          ]}
          onChange={(value) =>
            put({ shape: value === AS_PLANNED ? null : (value as Look["shape"]) })
          }
        />
        <span className="text-note text-stone">{joined.delivered.join(" × ")} px</span>
      </div>
      <div className="flex flex-wrap items-center gap-2">
        <span className="label-wide">Beat</span>
        {beats_per_min !== null && (
          <NumberField
            label="Beats a minute"
            unit="a minute"
            value={beats_per_min}
            min={20}
            max={300}
            onChange={(value) => put({ beats_per_min: value })}
          />
        )}
        <Button onClick={() => tap(performance.now())}>
          Tap it <Key>M</Key>
        </Button>
        <span role="status" className="text-note text-stone">
          {taps.length > 0 && taps.length < 4
            ? `${taps.length} of 4 taps`
            : beats_per_min === null
              ? "tap along with the music, four times or more"
              : `${onBeat} of ${joined.cuts.length} cuts on a beat`}
        </span>
        {beats_per_min !== null && (
          <>
            <Button onClick={snap}>
              Cuts onto the beats <Key>S</Key>
            </Button>
            <Button look="bare" onClick={() => put({ beats_per_min: null })}>
              No beat
            </Button>
          </>
        )}
      </div>
      {change.error && <FaultView error={change.error} />}
    </section>
  );
}
