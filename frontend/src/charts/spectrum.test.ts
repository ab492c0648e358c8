import { describe, expect, it } from "vitest";
import { spectrumShape } from "./spectrum";

const columns = (speedAt: (hz: number) => number) => {
  const hz = Array.from({ length: 300 }, (_, i) => i * 0.1);
  return { hz, speed: [hz.map(speedAt), hz.map(() => 0)], peaks: [] };
};

describe("spectrumShape", () => {
  it("stands highest at the frequency that carries most", () => {
    const shape = spectrumShape(columns((hz) => (Math.abs(hz - 2) < 0.05 ? 3 : 0.1)));
    const top = shape.reduce((best, one) => (one.speed > best.speed ? one : best));
    expect(top.hz).toBeGreaterThan(1.9);
    expect(top.hz).toBeLessThan(2.1);
  });
  it("holds as much power as the columns, over even steps", () => {
    const shape = spectrumShape(columns(() => 0.5));
    const power = shape.reduce((sum, one) => sum + one.speed ** 2, 0);
    expect(power / (298 * 0.25)).toBeCloseTo(1, 1);
  });
  it("is empty where there is nothing", () => {
    expect(spectrumShape({ hz: [], speed: [], peaks: [] })).toEqual([]);
  });
});
