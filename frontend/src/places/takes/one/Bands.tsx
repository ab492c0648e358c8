import type { BandReading } from "../../../api/client";
import { BANDS } from "../../../charts/bands";
import * as format from "../../../formats";

/** What kind of shake, band by band. */
export function Bands({ bands }: { bands: BandReading[] }) {
  return (
    <section aria-label="Bands" className="px-4 pt-3 pb-8 sm:px-8">
      <h2 className="sr-only">What kind of shake</h2>
      <ul className="grid grid-cols-1 gap-x-7 gap-y-3 sm:grid-cols-3 lg:grid-cols-5">
        {BANDS.map((band) => {
          const reading = bands.find((found) => found.name === band.name);
          return reading ? <Band key={band.name} band={band} reading={reading} /> : null;
        })}
      </ul>
    </section>
  );
}

function Band({ band, reading }: { band: (typeof BANDS)[number]; reading: BandReading }) {
  const shown = reading.share !== null;
  return (
    <li className="relative pl-[18px]" data-testid={`band-${band.name}`}>
      <i
        className="absolute top-[5px] left-0 size-2.5 rounded-[1px]"
        style={{ background: band.colour }}
      />
      <h3 className="text-lead font-[650]">
        {band.words}{" "}
        <span className="ml-1 font-medium text-stone">{format.share(reading.share)}</span>
      </h3>
      <p className="text-note leading-[1.36] text-stone">
        {band.range}
        {shown &&
          reading.strongest_hz !== null &&
          `, strongest at ${format.hertz(reading.strongest_hz)}`}
        .
      </p>
      <p className="text-note leading-[1.36] text-stone">
        {shown
          ? `Moves ${format.percentOfWidth(reading.excursion_pct)} of the long side, ${format.arcMinutes(reading.excursion_arcmin)}.`
          : "The frame rate is too low to show it."}
      </p>
    </li>
  );
}
