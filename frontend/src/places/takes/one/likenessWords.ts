import type { Judgement } from "../../../api/client";
import { moveKind } from "../../../charts/bandWords";
import * as format from "../../../formats";

type Likeness = NonNullable<Judgement["likeness"]>;

/** Whether it is of the example's kind, in a sentence or two; gust decides all the same. */
export function likenessWords(one: Likeness): string {
  const kind = one.alike
    ? "It shakes as its example does."
    : `It shakes otherwise than its example: ${format.share(one.apart)} lies in other bands, more ${one.more} and less ${one.less}.`;
  const move = one.same_move
    ? ""
    : ` The example is ${moveKind(one.wanted_move)}, this is ${moveKind(one.move)}.`;
  return `${kind}${move} Whether it passes is decided by gust alone.`;
}
