import { describe, expect, it } from "vitest";
import { samplesOf, turningOf } from "./turning";

describe("a phone's turning as that of the camera on its back", () => {
  const still = { x: 0, y: 0, z: 0 };

  it("is right, up and clockwise positive, held upright", () => {
    // Anticlockwise about the axis up, seen from above: the camera turns left.
    expect(turningOf({ ...still, y: 10 }, 0).pan).toBeCloseTo(-10);
    expect(turningOf({ ...still, x: 10 }, 0).tilt).toBeCloseTo(10);
    expect(turningOf({ ...still, z: 10 }, 0).roll).toBeCloseTo(-10);
  });

  it("changes pan and tilt where the picture lies on its side, and leaves roll", () => {
    const lying = turningOf({ x: 10, y: 0, z: 3 }, 90);
    expect(lying.pan).toBeCloseTo(-10);
    expect(lying.tilt).toBeCloseTo(0);
    expect(lying.roll).toBeCloseTo(-3);
    expect(turningOf({ x: 0, y: 10, z: 0 }, 90).tilt).toBeCloseTo(-10);
    const over = turningOf({ x: 5, y: 7, z: 1 }, 180);
    const upright = turningOf({ x: 5, y: 7, z: 1 }, 0);
    expect([over.pan, over.tilt]).toEqual([
      expect.closeTo(-upright.pan),
      expect.closeTo(-upright.tilt),
    ]);
  });

  it("keeps how fast it turns in all, however it is held", () => {
    const rate = { x: 3, y: -4, z: 12 };
    for (let angle = 0; angle < 360; angle += 15) {
      const { pan, tilt, roll } = turningOf(rate, angle);
      expect(Math.hypot(pan, tilt, roll)).toBeCloseTo(13);
    }
  });
});

describe("the simulated phone's log", () => {
  it("is thinned to every third sample, from nothing, in degrees", () => {
    const rows = Array.from({ length: 9 }, (_, k) => `${1e18 + k * 5e6},${Math.PI / 180},0,0`);
    const found = samplesOf(["t,x,y,z", ...rows].join("\n") + "\n");
    expect(found).toHaveLength(3);
    expect(found.map((one) => one.t_s)).toEqual([0, 0.015, 0.03].map((t) => expect.closeTo(t)));
    for (const one of found) expect(one.tilt).toBeCloseTo(1);
  });

  it("is empty where there is nothing", () => {
    expect(samplesOf("t,x,y,z\n")).toEqual([]);
  });
});
