import { expect, test } from "vitest";
import { lumaOf } from "./frames";

const of = (...colour: [number, number, number]) =>
  lumaOf(new Uint8ClampedArray([...colour, 255]))[0];

test("white is white, black is black, and a grey is itself", () => {
  expect(of(255, 255, 255)).toBe(255);
  expect(of(0, 0, 0)).toBe(0);
  for (let grey = 0; grey < 256; grey += 15) expect(of(grey, grey, grey)).toBe(grey);
});

test("green weighs most and blue least, as in films", () => {
  expect(of(255, 0, 0)).toBeCloseTo(0.299 * 255, -1);
  expect(of(0, 255, 0)).toBeCloseTo(0.587 * 255, -1);
  expect(of(0, 0, 255)).toBeCloseTo(0.114 * 255, -1);
});

test("it is a byte a point, whatever is seen through", () => {
  const colours = new Uint8ClampedArray(4 * 6).map((_, k) => (k % 4 === 3 ? k : 100));
  expect([...lumaOf(colours)]).toEqual(Array(6).fill(100));
});
