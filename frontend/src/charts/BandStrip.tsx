import { BANDS } from "./bands";

type Props = { shares: Partial<Record<string, number>>; height?: number };

/** Shares of the bands end to end, slow to fast; words stand beside it. */
export function BandStrip({ shares, height = 12 }: Props) {
  const widths = BANDS.map((band) => shares[band.name] ?? 0);
  return (
    <svg
      viewBox="0 0 100 10"
      preserveAspectRatio="none"
      className="block w-full"
      height={height}
      aria-hidden="true"
    >
      {BANDS.map((band, k) => (
        <rect
          key={band.name}
          x={100 * widths.slice(0, k).reduce((sum, one) => sum + one, 0)}
          width={100 * (widths[k] ?? 0)}
          height="10"
          fill={band.colour}
        />
      ))}
    </svg>
  );
}
