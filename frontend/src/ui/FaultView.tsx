import { Link, useLocation } from "react-router";
import { ExplainedError } from "../api/client";
import { PLACES } from "../trailPlaces";

const MISSING = "missing";

/** An error in place: what happened, why, and what to do next. */
export function FaultView({ error }: { error: Error }) {
  const known = error instanceof ExplainedError ? error : null;
  return (
    <div role="alert" className="m-4 border-l-4 border-ember bg-paper px-4 py-3 sm:mx-8">
      <p className="font-semibold">{error.message}</p>
      <p className="text-stone">{known?.hint ?? "Reload the page and try again."}</p>
      {known?.code === MISSING && <BackToPlace />}
    </div>
  );
}

/** The way back from the page of something that is not there any more. */
function BackToPlace() {
  const { pathname } = useLocation();
  const place = PLACES.find(({ to }) => pathname.startsWith(`${to}/`));
  if (!place) return null;
  return (
    <Link className="underline" to={place.to}>
      {place.words}
    </Link>
  );
}
