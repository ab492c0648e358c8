import type { Brief } from "../../api/client";
import { BandStrip } from "../../charts/BandStrip";
import { exampleWords } from "../../charts/bandWords";
import { Button } from "../../ui/Button";

type Props = { likeness: NonNullable<Brief["likeness"]>; onForget: () => void };

/** The example that takes of a brief are held against, beside its gust. */
export function BriefExample({ likeness, onForget }: Props) {
  return (
    <section aria-label="Example" className="flex flex-wrap items-center gap-x-4 gap-y-2">
      <p className="min-w-0">
        <b className="font-semibold">Like “{likeness.name}”</b>
        <span className="block text-note text-stone">
          {exampleWords(likeness.shares, likeness.move)}: takes are held against it, and pass by
          their gust.
        </span>
      </p>
      <span className="w-64">
        <BandStrip shares={likeness.shares} />
      </span>
      <Button onClick={onForget}>Let the example go</Button>
    </section>
  );
}
