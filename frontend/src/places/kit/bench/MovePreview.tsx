import { Clapperboard } from "lucide-react";
import { useEffect, useRef } from "react";
import type { BenchQuery } from "../../../api/kit";
import { usePreview } from "../../../api/kit";
import { Button } from "../../../ui/Button";
import { FaultView } from "../../../ui/FaultView";
import { Key } from "../../../keys/Key";
import { useKeys } from "../../../keys/useKeys";
import { useStill } from "../../../ui/useMedia";

/** The move as film, rendered on request by the stand-in camera. */
export function MovePreview({ query }: { query: BenchQuery }) {
  const preview = usePreview();
  const still = useStill();
  const film = () => preview.mutate({ ...query, setup: { ...query.setup, name: "preview" } });
  useKeys({ "Film the move": { f: film } });
  const shown = useRef<HTMLElement>(null);
  const name = preview.data?.name;
  useEffect(() => {
    if (name) shown.current?.scrollIntoView({ block: "nearest" });
  }, [name]);
  const asked = preview.variables;
  const outdated =
    preview.data !== undefined &&
    JSON.stringify([asked?.setup.bench.move, asked?.setup.optics, asked?.briefId]) !==
      JSON.stringify([query.setup.bench.move, query.setup.optics, query.briefId]);
  return (
    <div className="space-y-2">
      <div className="flex flex-wrap items-center gap-3">
        <Button onClick={film} disabled={preview.isPending}>
          <Clapperboard size={15} aria-hidden />
          {preview.isPending ? "Filming…" : "Film it"} <Key>F</Key>
        </Button>
        <span className="text-note text-stone" aria-live="polite">
          {preview.isPending
            ? "The stand-in camera films the move; a few seconds."
            : outdated
              ? "The move has changed since: film it again."
              : "A made scene at these distances, filmed by the stand-in camera without shake."}
        </span>
      </div>
      {preview.error && <FaultView error={preview.error} />}
      {preview.data && (
        <figure ref={shown} className="scroll-mb-20">
          <video
            key={preview.data.name}
            src={`/api/bench/previews/${preview.data.name}`}
            className={`rounded aspect-video w-full max-w-[560px] ${outdated ? "opacity-40" : ""}`}
            aria-label="The planned move, simulated"
            autoPlay={!still}
            loop
            muted
            playsInline
            controls
          />
          <figcaption className="text-small text-stone">
            Simulated.
            {preview.data.faster > 1.05 && ` Shown ${preview.data.faster.toFixed(1)} times faster.`}
            {preview.data.share < 0.999 &&
              ` Only the middle ${Math.round(100 * preview.data.share)} % of the turn is shown.`}
          </figcaption>
        </figure>
      )}
    </div>
  );
}
