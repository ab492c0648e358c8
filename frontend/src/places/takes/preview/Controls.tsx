import type { Brief, RemedyLine } from "../../../api/client";
import { useEye } from "../../../api/eye";
import type { Drift, RateLine, RemedyChoice, RemedyDetails } from "../../../api/decisions";
import * as format from "../../../formats";
import { Segments } from "../../../ui/Segments";
import { StrengthCurve } from "./StrengthCurve";

type Props = {
  remedy: RemedyLine;
  wanted: RemedyChoice;
  details: RemedyDetails;
  brief: Brief;
  target: number;
  onChange: (part: Partial<RemedyChoice>) => void;
};

/** What can be chosen of a remedy: the strength of a polish, a rate, a slow reframe. */
export function Controls({ remedy, wanted, details, brief, target, onChange }: Props) {
  const curve = details.curves.find((one) => one.remedy === remedy.remedy);
  if (curve) {
    const corner = wanted.corner_hz ?? remedy.corner_hz ?? curve.strengths[0]?.corner_hz ?? null;
    const chosen = curve.strengths.find((one) => one.corner_hz === corner);
    return (
      <div>
        <StrengthCurve
          strengths={curve.strengths}
          corner={corner}
          target={target}
          budget={brief.most_crop_pct}
          onChoose={(corner_hz) => onChange({ corner_hz })}
        />
        {chosen && (
          <p className="text-note text-stone">
            <b className="font-semibold text-ink">
              {chosen.name}: {format.percent(chosen.crop_pct)} crop, gust {format.gust(chosen.gust)}
              .
            </b>{" "}
            {chosen.warnings.join(" ")}
            {!chosen.within && " More crop than the brief allows."}
            <OwnLimit crop={chosen.crop_pct} />
          </p>
        )}
      </div>
    );
  }
  if (remedy.remedy === "hold") {
    return (
      <Holding
        glide={wanted.glide ?? remedy.glide ?? false}
        onChoose={(glide) => onChange({ glide })}
      />
    );
  }
  return (
    <div className="space-y-3">
      {remedy.remedy === "slow" && (
        <Rates
          rates={details.rates}
          rate={wanted.rate ?? remedy.rate}
          onChoose={(rate) => onChange({ rate })}
        />
      )}
      {details.drift_crop_pct > 0 && (
        <Reframe
          drift={wanted.drift}
          crop={details.drift_crop_pct}
          onChoose={(drift) => onChange({ drift })}
        />
      )}
    </div>
  );
}

const HOLDS = [
  { value: "still", words: "Still" },
  { value: "glide", words: "Gliding" },
] as const;

/** Whether a subject that is held stays where it was, or travels evenly. */
function Holding({ glide, onChoose }: { glide: boolean; onChoose: (glide: boolean) => void }) {
  return (
    <div>
      <h3 className="label-wide mb-1">The subject is held</h3>
      <Segments
        label="The subject is held"
        value={glide ? "glide" : "still"}
        options={HOLDS}
        onChange={(way) => onChoose(way === "glide")}
      />
      <p className="mt-1 text-note text-stone">
        {glide
          ? "It travels along a straight line, eased at both ends."
          : "It stays where it was, and the rest moves around it."}{" "}
        By one point the frame shifts; by two (X in the picture) it turns and scales too.
      </p>
    </div>
  );
}

/** What marks on earlier previews say of this much crop. */
function OwnLimit({ crop }: { crop: number }) {
  const own = useEye().data?.polish;
  if (!own?.offered || crop <= own.value) return null;
  return <> More than has worked for you ({format.percent(own.value)}).</>;
}

const SAME = 1e-3;

type RatesProps = { rates: RateLine[]; rate: number; onChoose: (rate: number) => void };

/** Every useful rate and what it would read; only even ones can be seen. */
function Rates({ rates, rate, onChoose }: RatesProps) {
  return (
    <table aria-label="Rates" className="w-full max-w-[460px] text-note">
      <thead className="text-left text-stone">
        <tr>
          <th className="font-medium">Speed</th>
          <th className="font-medium">Gust</th>
          <th className="font-medium">Plays</th>
          <th className="font-medium">Frames</th>
        </tr>
      </thead>
      <tbody>
        {rates.map((one) => {
          const on = Math.abs(one.rate - rate) < SAME;
          return (
            <tr key={one.rate} className={on ? "bg-paper font-semibold" : ""}>
              <td>
                {one.step === null || one.rate > 1 ? (
                  format.share(one.rate)
                ) : (
                  <button
                    type="button"
                    aria-pressed={on}
                    onClick={() => onChoose(one.rate)}
                    className="underline decoration-ridge-2 underline-offset-2"
                  >
                    {format.share(one.rate)}
                  </button>
                )}
              </td>
              <td className={one.passes ? "font-semibold text-lichen-deep" : ""}>
                {format.gust(one.gust)}
                {one.passes && " passes"}
              </td>
              <td>{format.seconds(one.plays_s)}</td>
              <td className="text-stone">{cadence(one)}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

function cadence(one: RateLine): string {
  if (one.step === null) return one.rate > 1 ? "sped up, uneven" : "uneven: stutters";
  const every = one.step === 1 ? "every frame" : `every ${ordinal(one.step)} frame`;
  return one.rate > 1 ? `sped up, ${every}` : every;
}

const ordinal = (step: number) => ({ 2: "2nd", 3: "3rd" })[step] ?? `${step}th`;

const NONE = "none";
const WAYS = [
  { value: NONE, words: "None" },
  { value: "left", words: "Left" },
  { value: "right", words: "Right" },
  { value: "up", words: "Up" },
  { value: "down", words: "Down" },
] as const;

type ReframeProps = { drift: Drift | null; crop: number; onChoose: (drift: Drift | null) => void };

/** A slow move made at the desk, within a little crop. */
function Reframe({ drift, crop, onChoose }: ReframeProps) {
  return (
    <div>
      <h3 className="label-wide mb-1">Slow reframe at the desk</h3>
      <Segments
        label="Slow reframe at the desk"
        value={drift ?? NONE}
        options={WAYS}
        onChange={(way) => onChoose(way === NONE ? null : way)}
      />
      {drift && (
        <p className="mt-1 text-note text-stone">
          The frame travels {drift} through {crop.toFixed(0)} % of crop, eased at both ends.
        </p>
      )}
    </div>
  );
}
