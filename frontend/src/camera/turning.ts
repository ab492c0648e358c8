/** A sample of a motion sensor, degrees a second, right, up and clockwise positive. at: when it came,
 * ms of the page's clock. */
export type Turning = { t_s: number; at: number; pan: number; tilt: number; roll: number };

/** Turning of the camera on a phone's back, from the turning about the phone's own axes (x right, y
 * up, z towards the eye, each anticlockwise) and the angle by which its picture is turned. */
export function turningOf(
  rate: { x: number; y: number; z: number },
  angle_deg: number,
): { pan: number; tilt: number; roll: number } {
  const angle = (angle_deg * Math.PI) / 180;
  const right = rate.x * Math.cos(angle) - rate.y * Math.sin(angle);
  const up = rate.x * Math.sin(angle) + rate.y * Math.cos(angle);
  return { pan: -up, tilt: right, roll: -rate.z };
}

/** Every third sample of a log as the simulated phone writes it: seventy a second, as browsers give. */
export function samplesOf(csv: string): Omit<Turning, "at">[] {
  const rows = csv
    .trim()
    .split("\n")
    .slice(1)
    .map((line) => line.split(",").map(Number));
  const [begin = 0] = rows[0] ?? [];
  const degrees = 180 / Math.PI;
  return rows
    .filter((_, k) => k % 3 === 0)
    .map(([stamp = 0, x = 0, y = 0, z = 0]) => ({
      t_s: (stamp - begin) / 1e9,
      ...turningOf({ x: x * degrees, y: y * degrees, z: z * degrees }, 0),
    }));
}
