/** What is drawn otherwise where two poses differ in a part. */
export type Edged = "trunk" | "legs" | "arm-r" | "arm-l" | "contacts";

const ARMS: Edged[] = ["arm-r", "arm-l"];
const MOVED: Record<string, Edged[]> = {
  feet: ["legs"],
  ahead: ["legs"],
  feet_turn_deg: ["legs"],
  knees_deg: ["legs"],
  raised: ["legs"],
  base: ["legs"],
  gait: ["legs"],
  shift: ["legs", "trunk"],
  turn_deg: ["trunk"],
  lean_deg: ["trunk"],
  elbows: ARMS,
  height: ARMS,
  reach: ARMS,
  support: ARMS,
  right: ["arm-r"],
  left: ["arm-l"],
  contacts: ["contacts"],
};

/** The parts of a drawing that are edged where poses differ in parts of theirs. */
export const edgedBy = (differs: readonly string[]): ReadonlySet<Edged> =>
  new Set(differs.flatMap((part) => MOVED[part] ?? []));
