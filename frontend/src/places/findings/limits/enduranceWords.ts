import type { EnduranceLine } from "../../../api/limits";
import * as format from "../../../formats";
import { signed } from "../trials/words";

type Tiring = NonNullable<EnduranceLine["tiring"]>;
type Resting = NonNullable<EnduranceLine["resting"]>;

const within = (low: number, high: number) => `${signed(low)} to ${signed(high)}`;

/** How many takes it bears, in a sentence. */
export function tiringWords(one: Tiring, target: number): string {
  const slope = `Each further take ${signed(one.a_take)} (${within(one.low, one.high)}).`;
  if (one.until === 0) return `Four in five never pass. ${slope}`;
  if (one.until !== null) return `Four in five pass until take ${one.until}. ${slope}`;
  if (one.low > 0) return `${slope} No session is long enough for it to matter.`;
  const first = one.gust_first + one.margin <= target;
  return `${slope} No tiring can be told${first ? "" : ", and four in five never pass"}.`;
}

/** How long a rest it wants, in a sentence. */
export function restingWords(one: Resting, shortest_s: number): string {
  const slope = `Twice the rest ${signed(one.doubled)} (${within(one.low, one.high)}).`;
  if (one.high >= 0) return `${slope} That a longer one helps is not told.`;
  if (one.enough_s === null) return `${slope} No rest that you took makes four in five pass.`;
  return one.enough_s <= shortest_s
    ? `${slope} Your shortest is enough.`
    : `${slope} Four in five pass after ${format.seconds(one.enough_s)} of rest.`;
}
