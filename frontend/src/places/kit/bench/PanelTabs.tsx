import { Tabs } from "radix-ui";
import type { ReactNode } from "react";
import type { BenchAnswer } from "../../../api/kit";
import * as format from "../../../formats";
import { Key } from "../../../keys/Key";
import { useUnits } from "../../../ui/useUnits";
import { PANELS } from "./BenchPanel";
import type { PanelName } from "./panel";

type Props = {
  answer: BenchAnswer;
  panel: PanelName;
  onPanel: (panel: PanelName) => void;
  children: ReactNode;
};

/** The six panels, each with the figure that matters most. */
export function PanelTabs({ answer, panel, onPanel, children }: Props) {
  const { inUnits } = useUnits();
  const figures: Record<PanelName, string> = {
    picture: format.millimetres(Math.round(answer.picture?.focal_eq_mm ?? NaN)),
    shake: format.gust(answer.shake?.gust),
    time: format.share(answer.time?.playback),
    move: inUnits("seconds", answer.move?.needed_s),
    rig: inUnits("heavy_g", answer.rig?.mass_g),
    strap: answer.strapped ? inUnits("body_mm", answer.strap?.taut_mm) : "none",
  };
  return (
    <Tabs.Root value={panel} onValueChange={(next) => onPanel(next as PanelName)}>
      <div className="flex items-stretch border-y border-line bg-paper sm:px-4">
        <Tabs.List
          aria-label="Panels of the bench"
          className="grid w-full grid-cols-3 sm:flex sm:w-auto"
        >
          {PANELS.map((one) => {
            const figure = answer.problems.some((p) => p.panel === one.name || p.panel === "optics")
              ? "–"
              : figures[one.name];
            return (
              <Tabs.Trigger
                key={one.name}
                value={one.name}
                className="border-b-2 border-transparent px-4 py-2 text-left hover:bg-mist focus-visible:-outline-offset-2 data-[state=active]:border-ink"
              >
                <span className="label-wide block">{one.words}</span>
                <span className="figure-narrow text-large leading-tight">{figure}</span>
              </Tabs.Trigger>
            );
          })}
        </Tabs.List>
        <span className="ml-auto hidden items-center gap-1.5 text-note text-stone lg:flex">
          <Key>,</Key> <Key>.</Key> panels
        </span>
      </div>
      <Tabs.Content value={panel} tabIndex={-1} className="outline-none">
        {children}
      </Tabs.Content>
    </Tabs.Root>
  );
}
