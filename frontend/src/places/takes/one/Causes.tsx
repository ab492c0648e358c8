import type { Judgement } from "../../../api/client";
import { BANDS } from "../../../charts/bands";
import * as format from "../../../formats";

type Cause = Judgement["causes"][number];

/** Why it shakes: at most three causes, each with its evidence and one thing to change. */
export function Causes({ judgement }: { judgement: Judgement }) {
  const { causes } = judgement;
  return (
    <section aria-label="Causes" className="px-4 pt-3 pb-4 sm:px-8">
      <h2 className="sr-only">Why it shakes</h2>
      {causes.length === 0 ? (
        <p className="text-note text-stone">
          <b className="font-[650] text-ink">No clear cause.</b> Nothing stands out of what is left.
        </p>
      ) : (
        <ol className="grid grid-cols-1 gap-x-7 gap-y-3 md:grid-cols-3">
          {causes.map((cause) => (
            <CauseNote key={cause.key} cause={cause} />
          ))}
        </ol>
      )}
    </section>
  );
}

function CauseNote({ cause }: { cause: Cause }) {
  const colour = BANDS.find((band) => band.name === cause.band)?.colour;
  return (
    <li className="relative pl-[18px]" data-testid={`cause-${cause.key}`}>
      <i
        className="absolute top-[5px] left-0 size-2.5 rounded-[1px]"
        style={{ background: colour }}
      />
      <h3 className="text-lead font-[650]">
        {cause.name}{" "}
        <span className="ml-1 font-medium text-stone">
          {format.share(cause.share)} · {format.certainty(cause.certainty)}
        </span>
      </h3>
      <p className="text-note leading-[1.36] text-stone">{cause.evidence}</p>
      <p className="text-note leading-[1.36] font-semibold">{cause.change}</p>
    </li>
  );
}
