import type { BenchQuery } from "../../../api/kit";
import { MovePanel } from "./MovePanel";
import type { PanelName, PanelProps } from "./panel";
import { PicturePanel } from "./PicturePanel";
import { RigPanel } from "./RigPanel";
import { ShakePanel } from "./ShakePanel";
import { StrapPanel } from "./StrapPanel";
import { TimePanel } from "./TimePanel";

export const PANELS = [
  { name: "picture", words: "Picture" },
  { name: "shake", words: "Shake at this lens" },
  { name: "time", words: "Time" },
  { name: "move", words: "Move" },
  { name: "rig", words: "Rig" },
  { name: "strap", words: "Strap" },
] as const satisfies { name: PanelName; words: string }[];

type Props = PanelProps & { panel: PanelName; query: BenchQuery };

/** The panel that is open. */
export function BenchPanel({ panel, query, ...props }: Props) {
  if (panel === "picture") return <PicturePanel {...props} />;
  if (panel === "shake") return <ShakePanel {...props} />;
  if (panel === "time") return <TimePanel {...props} />;
  if (panel === "move") return <MovePanel {...props} query={query} />;
  if (panel === "rig") return <RigPanel {...props} />;
  return <StrapPanel {...props} />;
}
