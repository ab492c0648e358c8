import { Check, Volume2 } from "lucide-react";
import { useState } from "react";
import type { Drill, SessionDetail } from "../../api/practice";
import { Button } from "../../ui/Button";
import { Key } from "../../keys/Key";
import { useKeys } from "../../keys/useKeys";
import { speak } from "./sound";

type Props = { drill: Drill; checks: SessionDetail["checks"][string] };

/** The check before rolling: short, spoken on request, ticked one by one by a key. */
export function Checks({ drill, checks }: Props) {
  const [ticked, setTicked] = useState(0);
  const tick = () => setTicked((now) => Math.min(checks.length, now + 1));
  const say = () => speak(checks.map((check) => check.words).join(" "), 1);
  useKeys({ "Tick the next check": { k: tick }, "Say the checks": { v: say } });
  return (
    <div className="mx-auto w-full max-w-[760px] space-y-2 text-left">
      <div className="flex items-center gap-3">
        <h2 className="label-wide">Before you roll</h2>
        <span className="ml-auto flex gap-2">
          <Button onClick={say}>
            <Volume2 size={15} aria-hidden /> Say it <Key>V</Key>
          </Button>
          <Button onClick={tick}>
            Tick <Key>K</Key>
          </Button>
        </span>
      </div>
      <ul className="grid gap-x-6 text-note sm:grid-cols-2 sm:text-heading">
        {checks.map((check, index) => (
          <li
            key={check.key}
            className="flex items-center gap-2 border-b border-line py-0.5 sm:py-1"
          >
            <span
              className={`grid size-5 shrink-0 place-items-center border ${index < ticked ? "border-lichen-deep bg-lichen" : "border-ridge-2"}`}
            >
              {index < ticked && <Check size={14} aria-label="ticked" />}
            </span>
            <span className={index < ticked ? "text-stone" : ""}>{check.words}</span>
          </li>
        ))}
      </ul>
      {drill.cues.length > 0 && (
        <p className="text-lead font-semibold sm:text-heading">{drill.cues.join(" ")}</p>
      )}
    </div>
  );
}
