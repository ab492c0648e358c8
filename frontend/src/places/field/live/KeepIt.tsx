import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { sayOrigin } from "../../../api/examples";
import { useChanged } from "../../../api/keys";
import { keepLog, sendLog } from "../../../api/logs";
import { sendFilm } from "../../../api/uploads";
import { useKeys } from "../../../keys/useKeys";
import { columnsOf } from "../../../live/columns";
import type { Kept } from "../../../live/liveRun";
import { FaultView } from "../../../ui/FaultView";
import { BigButton } from "../../../ui/BigButton";

type Props = { kept: Kept; simulated: boolean; onGone: () => void };

/** What ran live becomes a take, or is let go. */
export function KeepIt({ kept, simulated, onGone }: Props) {
  const changed = useChanged();
  const [share, setShare] = useState(0);
  const keep = useMutation({
    mutationFn: async () => {
      const id = kept.kind === "film" ? await film(kept.film, setShare) : await log(kept.csv);
      if (simulated) await sayOrigin(id, "simulated");
      return id;
    },
    onSuccess: () => changed("films"),
  });
  const act = () => !keep.isPending && !keep.isSuccess && keep.mutate();
  useKeys({ "Keep it as a take": { k: act }, "Let it go": { Escape: onGone } });
  if (keep.isSuccess) {
    return (
      <p role="status" className="border-t border-line px-4 py-3 text-lead sm:px-8">
        Kept, and measured whole.{" "}
        <Link className="underline" to={`/takes/${keep.data}`}>
          Open its take
        </Link>
      </p>
    );
  }
  return (
    <section aria-label="Keep it" className="border-t border-line px-4 py-3 sm:px-8">
      {keep.error && <FaultView error={keep.error} />}
      <div className="flex flex-wrap items-center gap-2">
        <BigButton main hint="K" disabled={keep.isPending} onClick={act}>
          {keep.isPending ? `Sending ${Math.round(100 * share)} %` : "Keep it as a take"}
        </BigButton>
        <BigButton hint="Esc" onClick={onGone}>
          Let it go
        </BigButton>
        <span className="text-note text-stone">
          {kept.kind === "film" ? "Its film" : "Its turning rates"}, measured whole.
        </span>
      </div>
    </section>
  );
}

async function film(file: File, onShare: (share: number) => void) {
  return (await sendFilm(file, onShare, new AbortController().signal)).take.id;
}

async function log(csv: string) {
  const time = new Date().toLocaleTimeString(undefined, { hour12: false });
  const kept = await keepLog({
    name: `Live ${time}`,
    upload: await sendLog(new File([csv], "live.csv")),
    mapping: columnsOf("time_s"),
    take_id: null,
    stretch: null,
  });
  return kept.id;
}
