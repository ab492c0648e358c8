import type { Brief, Judgement } from "../../../api/client";
import * as format from "../../../formats";

const READOUT_WORDS = {
  setup: "Read-out (set-up)",
  film: "Read-out (film)",
  assumed: "Read-out (assumed)",
};

type Props = { judgement: Judgement; brief: Brief; pictured: boolean };

/** How much it shakes, against what is allowed. */
export function GustFigure({ judgement, brief, pictured }: Props) {
  const settled = judgement.verdict !== null;
  const against = settled ? format.againstTarget(judgement.gust, judgement.target) : null;
  const facts = [
    ["Peak, 95 % is under", format.gust(judgement.peak_gust)],
    ["Body speed", format.degreesASecond(judgement.body_deg_s)],
    ["Finest readable", format.gust(judgement.floor_gust)],
    ["Target", format.gust(judgement.target)],
    ...(pictured
      ? [[READOUT_WORDS[judgement.readout.source], format.readout(judgement.readout.seconds)]]
      : []),
  ];
  return (
    <section aria-label="Gust" className="grid grid-cols-[auto_1fr] gap-x-6 md:flex md:flex-col">
      <h2 className="label-wide col-span-2">Gust</h2>
      <p
        className={`figure-huge mt-2.5 mb-2 -ml-1.5 text-hero-narrow md:text-hero ${settled ? "" : "text-stone"}`}
        data-testid="gust"
      >
        {format.gust(judgement.gust)}
      </p>
      <dl className="grid content-center md:order-2 md:mt-3 grid-cols-[1fr_auto] gap-x-3 gap-y-[3px] text-note text-stone">
        {facts.map(([label, value]) => (
          <div key={label} className="contents">
            <dt>{label}</dt>
            <dd className="text-right font-semibold text-ink">{value}</dd>
          </div>
        ))}
      </dl>
      {!settled && (
        <p className="col-span-2 md:order-1">
          <b className="font-semibold">Not settled.</b> Do not rely on it.
        </p>
      )}
      {against && (
        <p className="col-span-2 md:order-1">
          <b className={`font-semibold ${against.over ? "text-ember-deep" : "text-lichen-deep"}`}>
            {against.words}
          </b>{" "}
          the target for {brief.own_target === null ? brief.feel : "this brief"}
        </p>
      )}
    </section>
  );
}
