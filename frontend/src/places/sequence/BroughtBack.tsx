import { useRef } from "react";
import { Link } from "react-router";
import { useBringBack, useUsed } from "../../api/joined";
import * as format from "../../formats";
import { Key } from "../../keys/Key";
import { useKeys } from "../../keys/useKeys";
import { Button } from "../../ui/Button";
import { FaultView } from "../../ui/FaultView";

/** What became film: read from the time line that comes back from the desk. */
export function BroughtBack({ id }: { id: number }) {
  const found = useUsed(id).data;
  const bring = useBringBack(id);
  const input = useRef<HTMLInputElement>(null);
  useKeys({ "Bring a time line back": { b: () => input.current?.click() } });
  const unknown = bring.data?.unknown ?? [];
  return (
    <section aria-label="From the desk" className="border-t border-line px-4 py-4 sm:px-8">
      <header className="flex flex-wrap items-center gap-3">
        <h2 className="label-wide">From the desk</h2>
        <p className="text-note text-stone">
          {found && found.used.length > 0
            ? `${format.seconds(found.seconds)} of ${format.takes(new Set(found.used.map((one) => one.take.id)).size)} became film.`
            : "Once it is cut, bring its time line back: the log learns what became film."}
        </p>
        <input
          ref={input}
          type="file"
          accept=".otio,application/json"
          aria-label="Time line from the desk"
          className="sr-only"
          onChange={(event) => {
            const file = event.target.files?.[0];
            if (file) bring.mutate(file);
            event.target.value = "";
          }}
        />
        <span className="ml-auto">
          <Button onClick={() => input.current?.click()}>
            Bring a time line back <Key>B</Key>
          </Button>
        </span>
      </header>
      {bring.error && <FaultView error={bring.error} />}
      {unknown.length > 0 && (
        <p className="text-note text-ember-deep" role="status">
          Not here, and left out: {unknown.join(", ")}.
        </p>
      )}
      <ul>
        {found?.used.map((one, at) => (
          <li
            key={at}
            className="flex flex-wrap items-baseline gap-x-3 border-b border-line py-1 text-note"
          >
            <Link to={`/takes/${one.take.id}`} className="font-semibold underline">
              {one.take.name}
            </Link>
            <span>{format.seconds(one.seconds)}</span>
            <span className="text-stone">{format.span(one.in_s, one.out_s)}</span>
            <span className="ml-auto">gust {format.gust(one.gust)}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
