import { scaleLinear, scaleLog } from "d3-scale";
import { area } from "d3-shape";
import { useSpectrum } from "../../../api/takes";
import { BANDS } from "../../../charts/bands";
import { spectrumShape, SLOWEST_HZ } from "../../../charts/spectrum";
import * as format from "../../../formats";
import { FaultView } from "../../../ui/FaultView";
import { useWidth } from "../../../ui/useWidth";

const HEIGHT = 170;
const MARGIN = { left: 72, right: 72, top: 30, bottom: 26 };
const NARROW = { left: 28, right: 16, top: 30, bottom: 26 };
const TICKS_HZ = [0.1, 0.3, 1.2, 4, 14];

/** How much of the shake lies at each frequency, with the strongest lines named. */
export function Spectrum({ id }: { id: number }) {
  const found = useSpectrum(id);
  const [box, width] = useWidth<HTMLDivElement>();
  if (found.isLoadingError) return <FaultView error={found.error} />;
  const margin = width < 640 ? NARROW : MARGIN;
  const data = found.data;
  const lastHz = data?.hz.at(-1) ?? 30;
  const x = scaleLog([SLOWEST_HZ, lastHz], [margin.left, Math.max(width - margin.right, 99)]);
  const shape = data ? spectrumShape(data) : [];
  const top = Math.max(1e-6, ...shape.map((point) => point.speed));
  const y = scaleLinear([0, top], [HEIGHT - margin.bottom, margin.top]);
  return (
    <section
      aria-label="Spectrum"
      ref={box}
      className="border-t border-line bg-paper"
      style={{ height: HEIGHT }}
    >
      {data && width > 0 && (
        <svg
          width={width}
          height={HEIGHT}
          role="img"
          aria-label={`Shake by frequency: ${data.peaks.map(peakWords).join("; ") || "no single line"}`}
        >
          {BANDS.map((band, index) => {
            const [from, to] = [TICKS_HZ[index] ?? 0.1, TICKS_HZ[index + 1] ?? lastHz];
            const inside = shape.filter(
              (point) => point.hz >= from * 0.97 && point.hz <= to * 1.03,
            );
            const path = area<(typeof shape)[number]>()
              .x((point) => x(point.hz))
              .y0(y(0))
              .y1((point) => y(point.speed))(inside);
            return <path key={band.name} d={path ?? ""} fill={band.colour} />;
          })}
          <line
            x1={margin.left}
            x2={width - margin.right}
            y1={y(0)}
            y2={y(0)}
            stroke="var(--stone)"
          />
          {[0.1, 0.3, 1, 2, 4, 8, 14, 25].map(
            (hz) =>
              hz <= lastHz && (
                <text
                  className="text-fine"
                  key={hz}
                  x={x(hz)}
                  y={HEIGHT - 8}
                  textAnchor="middle"
                  fill="var(--stone)"
                >
                  {hz === 0.1 ? "0.1 Hz" : hz}
                </text>
              ),
          )}
          {data.peaks.slice(0, 3).map((peak, index) => (
            <g key={peak.hz}>
              <line
                x1={x(Math.max(peak.hz, SLOWEST_HZ))}
                x2={x(Math.max(peak.hz, SLOWEST_HZ))}
                y1={16 + 12 * index}
                y2={y(0)}
                stroke="var(--ink)"
                strokeWidth="0.8"
                strokeDasharray="2 2"
              />
              <text
                className="text-fine"
                x={x(Math.max(peak.hz, SLOWEST_HZ)) + 4}
                y={20 + 12 * index}
                fill="var(--ink)"
              >
                {peakWords(peak)}
              </text>
            </g>
          ))}
        </svg>
      )}
    </section>
  );
}

const peakWords = (peak: { hz: number; part: string; share: number }) =>
  `${format.hertz(peak.hz)} ${peak.part}, ${format.share(peak.share)}`;
