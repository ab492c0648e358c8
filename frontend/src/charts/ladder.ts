/** The ladder of gusts: a ridge line that rises from a plain at 0 to alps at 10. */

const STEPS = 240;
export const LADDER_TOP = 10;

/** Height of the skyline, 0 to 1, at a gust; the same every time. */
export function skyline(gust: number): number {
  const wave =
    Math.sin(gust * 5.1) + 0.6 * Math.sin(gust * 11.7 + 1.3) + 0.35 * Math.sin(gust * 23.9 + 0.4);
  const rough = 0.5 + 0.5 * (wave / 1.95);
  const size = (gust / LADDER_TOP) ** 1.6;
  return Math.max(0.015, size * (0.35 + 0.65 * rough));
}

/** The area under the skyline in a box, as an SVG path; far: how much paler ridges rise. */
export function ladderPath(width: number, height: number, far = 0): string {
  let path = `M0 ${height}`;
  for (let k = 0; k <= STEPS; k++) {
    const gust = (LADDER_TOP * k) / STEPS;
    const tall = Math.min(
      1,
      skyline(gust + 0.37 * far) * (1 - 0.18 * far) + 0.07 * far * (gust / 10),
    );
    path += `L${((width * k) / STEPS).toFixed(1)} ${(height * (1 - 0.94 * tall)).toFixed(1)}`;
  }
  return `${path}L${width} ${height}Z`;
}
