import { expect, it } from "vitest";
import type { InUnits } from "../../../ui/useUnits";
import { withUnit } from "../../../units";
import { holdWords } from "./hold";

const inUnits: InUnits = (quantity, value) => withUnit(quantity, value, "metric");

it("a hold is as long as a take wants that keeps its speed, and is less only where it is slowed", () => {
  expect(holdWords({ hold_s: 3.2, on_screen_s: 4 }, inUnits)).toBe(
    "3.2 s slowed, 4.0 s at full speed",
  );
  expect(holdWords({ hold_s: 4, on_screen_s: 4 }, inUnits)).toBe("4.0 s");
});
