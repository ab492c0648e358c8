import { ExplainedError } from "../api/client";

/** An error in place: what happened, why, and what to do next. */
export function FaultView({ error }: { error: Error }) {
  return (
    <div role="alert" className="m-4 border-l-4 border-ember bg-paper px-4 py-3 sm:mx-8">
      <p className="font-semibold">{error.message}</p>
      <p className="text-stone">
        {error instanceof ExplainedError ? error.hint : "Reload the page and try again."}
      </p>
    </div>
  );
}
