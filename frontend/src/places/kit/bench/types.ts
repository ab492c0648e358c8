import type { BenchAnswer } from "../../../api/kit";

export type Picture = NonNullable<BenchAnswer["picture"]>;
export type Shake = NonNullable<BenchAnswer["shake"]>;
export type Timing = NonNullable<BenchAnswer["time"]>;
export type Move = NonNullable<BenchAnswer["move"]>;
export type Balance = NonNullable<BenchAnswer["rig"]>;
export type RigPart = BenchAnswer["rig_parts"][number];
export type StrapPlan = NonNullable<BenchAnswer["strap"]>;
