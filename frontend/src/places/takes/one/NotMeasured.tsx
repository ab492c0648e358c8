import type { TakeLine } from "../../../api/client";
import { useTakeAct } from "../../../api/takes";
import { Button } from "../../../ui/Button";
import { Progress } from "../../../ui/Progress";
import { LogButton } from "../log/LogButton";

/** A take that has no path yet, or cannot have one. */
export function NotMeasured({ take, focal }: { take: TakeLine; focal: number }) {
  const act = useTakeAct();
  if (take.state === "queued" || take.state === "running") {
    return (
      <div className="max-w-md space-y-3 px-4 py-8 sm:px-8">
        <p>{take.state === "queued" ? "Waiting to be measured." : "Being measured."}</p>
        {take.fault && (
          <p role="status">
            It waits because {take.fault.what}: {take.fault.next_step}.
          </p>
        )}
        <Progress value={take.progress} label="Measuring" />
        <Button onClick={() => act.mutate({ act: "cancel", id: take.id })}>Cancel</Button>
      </div>
    );
  }
  return (
    <div className="max-w-xl space-y-3 px-4 py-8 sm:px-8" role="alert">
      <p className="text-heading font-semibold">
        {take.fault
          ? `This take could not be measured: ${take.fault.what}.`
          : "Measuring was cancelled."}
      </p>
      {take.fault && <p className="text-stone">What to do: {take.fault.next_step}.</p>}
      <span className="flex flex-wrap gap-2">
        <Button onClick={() => act.mutate({ act: "measure", id: take.id })}>Measure again</Button>
        {take.fault?.code.startsWith("not_measurable") && (
          <LogButton take={{ id: take.id, focal }} words="Measure by a motion log (CSV)" />
        )}
      </span>
    </div>
  );
}
