import { useRef } from "react";
import { useDrillFigure, type DrillFigure, type VariationFigure } from "../api/figures";
import { BodyView } from "./BodyView";
import { frameAt, type View } from "./project";
import { usePlaying } from "./usePlaying";

type Props = {
  drill: string;
  /** Null for the one that is practised beside the plain control. */
  variation: string | null;
  view?: View;
  className: string;
};

/** One way of a drill from one side, moving where it moves; empty while it is not known. */
export function VariationBody({ drill, variation, view = "side", className }: Props) {
  const found = useDrillFigure(drill).data;
  const figure =
    found?.figures.find((one) => one.key === variation) ??
    found?.figures.find((one) => !one.control);
  return (
    <div className={className}>
      {found && figure && (
        <Moving key={`${drill}/${figure.key}`} names={found.joints} figure={figure} view={view} />
      )}
    </div>
  );
}

type MovingProps = { names: DrillFigure["joints"]; figure: VariationFigure; view: View };

function Moving({ names, figure, view }: MovingProps) {
  const box = useRef<HTMLElement>(null);
  const { seconds, cycle } = figure;
  const { share } = usePlaying(box, { seconds, cycle, moves: figure.frames.length > 1 });
  const frame = frameAt(figure.frames, figure.cycle ? share % 1 : share, figure.cycle);
  return frame ? (
    <figure ref={box} aria-label={figure.words} className="m-0 h-full">
      <BodyView names={names} figure={figure} frame={frame} view={view} />
    </figure>
  ) : null;
}
