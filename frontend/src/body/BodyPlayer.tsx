import { Pause, Play } from "lucide-react";
import { useRef } from "react";
import type { DrillFigure, VariationFigure } from "../api/figures";
import { Button } from "../ui/Button";
import { BodyView } from "./BodyView";
import { frameAt, type View } from "./project";
import { usePlaying } from "./usePlaying";

const VIEWS: { view: View; words: string }[] = [
  { view: "side", words: "From the side" },
  { view: "front", words: "From the front" },
  { view: "above", words: "From above" },
];

type Props = { names: DrillFigure["joints"]; figure: VariationFigure; views?: readonly View[] };

/** A variation from up to three sides, played, paused and dragged through. */
export function BodyPlayer({ names, figure, views = ["side", "front", "above"] }: Props) {
  const moves = figure.frames.length > 1;
  const box = useRef<HTMLElement>(null);
  const { seconds, cycle } = figure;
  const { share, playing, toggle, seek } = usePlaying(box, { seconds, cycle, moves });
  const frame = frameAt(figure.frames, figure.cycle ? share % 1 : share, figure.cycle);
  if (!frame) return null;
  return (
    <figure ref={box} aria-label={figure.words} className="m-0 min-w-0">
      <div className="grid grid-cols-2 sm:grid-cols-3">
        {VIEWS.filter((one) => views.includes(one.view)).map((one) => (
          <div
            key={one.view}
            className="border-l border-line first:border-l-0 [&:nth-child(3)]:hidden sm:[&:nth-child(3)]:block"
          >
            <p className="label-wide px-2 pt-1">{one.words}</p>
            <div className="h-[210px] sm:h-[340px]">
              <BodyView names={names} figure={figure} frame={frame} view={one.view} />
            </div>
          </div>
        ))}
      </div>
      {moves && (
        <div className="flex items-center gap-3 border-t border-line px-2 py-1">
          <Button look="bare" onClick={toggle} aria-label={playing ? "Pause" : "Play"}>
            {playing ? <Pause size={15} aria-hidden /> : <Play size={15} aria-hidden />}
          </Button>
          <input
            type="range"
            aria-label={`${figure.name}: through the move`}
            aria-valuetext={`${Math.round(100 * share)} percent`}
            min={0}
            max={1}
            step={0.01}
            value={share}
            onChange={(event) => seek(Number(event.target.value))}
            className="w-full accent-ink"
          />
        </div>
      )}
      <figcaption className="sr-only">{figure.words}</figcaption>
    </figure>
  );
}
