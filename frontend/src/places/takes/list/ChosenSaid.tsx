import type { TakeLine } from "../../../api/client";
import * as format from "../../../formats";
import { CHOICE_WORDS } from "../compare/words";

type Props = { take: TakeLine | undefined; place: number; total: number; picked: boolean };

/** Says the take that is chosen by key, and what has become of it, to those who do not see it. */
export function ChosenSaid({ take, place, total, picked }: Props) {
  const words = take && [
    take.name,
    take.gust === null ? "not measured" : `gust ${format.gust(take.gust)}`,
    ...(take.choice ? [CHOICE_WORDS[take.choice].toLowerCase()] : []),
    ...(picked ? ["picked"] : []),
    `${place + 1} of ${total}`,
  ];
  return (
    <p role="status" className="sr-only" data-testid="chosen-said">
      {words?.join(", ")}
    </p>
  );
}
