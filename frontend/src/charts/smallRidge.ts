import { BANDS } from "./bands";

const COLUMNS = 48;
const TOP_GUST = 8;
const STEPS_PER_GUST = 25;

export type SmallRidgeShape = {
  layers: { name: string; colour: string; path: string }[];
  targetY: number;
  under: string;
};

/**
 * The small ridge of the list from its bytes, in a box of the given size; 8 gusts high. Drawn by
 * plain arithmetic, so that the list needs no drawing library.
 */
export function smallRidge(
  encoded: string,
  target: number,
  width: number,
  height: number,
): SmallRidgeShape | null {
  const bytes = Uint8Array.from(atob(encoded), (c) => c.charCodeAt(0));
  if (bytes.length !== COLUMNS * BANDS.length) return null;
  const y = (gust: number) => height * (1 - Math.min(1, Math.max(0, gust / TOP_GUST)));
  const x = (column: number) => (width * column) / (COLUMNS - 1);
  const layers = BANDS.map((band, from) => {
    const tops = Array.from({ length: COLUMNS }, (_, column) => {
      const byte = bytes[column * BANDS.length + BANDS.length - from - 1] ?? 0;
      return `${short(x(column))},${short(y(byte / STEPS_PER_GUST))}`;
    });
    const path = `M0,${height}L${tops.join("L")}L${width},${height}Z`;
    return { name: band.name, colour: band.colour, path };
  });
  return { layers, targetY: y(target), under: layers[0]?.path ?? "" };
}

const short = (value: number) => String(Number(value.toFixed(2)));
