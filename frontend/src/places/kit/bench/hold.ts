import type { BenchAnswer } from "../../../api/kit";
import type { InUnits } from "../../../ui/useUnits";

type Time = NonNullable<BenchAnswer["time"]>;

/** How long to hold a shot: less where it is slowed, which no take is that keeps its speed. */
export function holdWords(time: Pick<Time, "hold_s" | "on_screen_s">, inUnits: InUnits): string {
  const slowed = inUnits("seconds", time.hold_s);
  const whole = inUnits("seconds", time.on_screen_s);
  return slowed === whole ? whole : `${slowed} slowed, ${whole} at full speed`;
}
