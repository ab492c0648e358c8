import { useDrillFigure } from "../api/figures";
import { BodyView } from "./BodyView";
import type { View } from "./project";

type Props = {
  drill: string;
  /** Null for the one that is practised beside the plain control. */
  variation: string | null;
  view?: View;
  className: string;
};

/** One way of a drill as it ends, with its beginning as a ghost: for paper. */
export function StillBody({ drill, variation, view = "side", className }: Props) {
  const found = useDrillFigure(drill).data;
  const figure =
    found?.figures.find((one) => one.key === variation) ??
    found?.figures.find((one) => !one.control);
  const frame = figure?.frames[figure.cycle ? 0 : figure.frames.length - 1];
  return (
    <div className={className}>
      {found && figure && frame && (
        <figure aria-label={figure.words} className="m-0 h-full">
          <BodyView names={found.joints} figure={figure} frame={frame} view={view} />
        </figure>
      )}
    </div>
  );
}
