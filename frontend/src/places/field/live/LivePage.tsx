import { useEffect, useState } from "react";
import { useLiveSetting, type LiveSetting } from "../../../api/live";
import { FEEL_WORDS } from "../../../formats";
import { useKeys } from "../../../keys/useKeys";
import { useLive } from "../../../live/useLive";
import type { LiveSource } from "../../../live/liveRun";
import { FaultView } from "../../../ui/FaultView";
import { useRemembered } from "../../../ui/useRemembered";
import { useAwake } from "../../practice/door";
import { BigButton } from "../../../ui/BigButton";
import { Segments } from "../../../ui/Segments";
import { KeepIt } from "./KeepIt";
import { LiveFace } from "./LiveFace";
import { StrapPulls } from "./StrapPulls";

const SOURCES = [
  { value: "camera", words: "This camera" },
  { value: "sensor", words: "Phone’s motion" },
  { value: "simulated-camera", words: "Simulated camera" },
  { value: "simulated-sensor", words: "Simulated phone" },
] as const satisfies { value: LiveSource; words: string }[];

const WAYS = [
  { value: "hold", words: "Hold until it breaks" },
  { value: "strap", words: "Find the strap’s pull" },
] as const;

/** Steadiness while it happens, to be read at three metres and heard with both hands full. */
export function LivePage() {
  const found = useLiveSetting();
  useEffect(() => {
    document.title = "Live · Ridgewind";
  }, []);
  if (found.isLoadingError) return <FaultView error={found.error} />;
  if (!found.data) return <p className="p-8 text-stone">Opening the meter…</p>;
  return <Meter setting={found.data} />;
}

function Meter({ setting }: { setting: LiveSetting }) {
  const [source, setSource] = useRemembered<LiveSource>("live-source", "camera");
  const [way, setWay] = useState<"hold" | "strap">("hold");
  const [sound, setSound] = useState(true);
  const live = useLive(sound);
  const runs = live.state === "runs";
  const toggle = () => (runs ? live.stop() : live.state === "off" && live.start(source, setting));
  useAwake(runs);
  useKeys({
    [runs ? "Stop" : "Start"]: { " ": toggle, Enter: toggle },
    "Sound on, off": { m: () => setSound((on) => !on) },
  });
  return (
    <div className="flex min-h-[calc(100dvh-var(--trail))] flex-col">
      <h1 className="sr-only">Live steadiness</h1>
      {live.state === "off" && !live.kept && (
        <div className="flex flex-wrap gap-x-6 gap-y-2 border-b border-line px-4 py-3 sm:px-8">
          <Segments
            big
            label="What is metered"
            value={source}
            options={SOURCES}
            onChange={setSource}
          />
          <Segments big label="What for" value={way} options={WAYS} onChange={setWay} />
          <p className="basis-full text-note text-stone">
            Target {setting.target.toFixed(1)}, {FEEL_WORDS[setting.feel].toLowerCase()}
            {source.endsWith("sensor") &&
              `, at ${setting.focal_eq_mm.toFixed(0)} mm${setting.setup ? `: ${setting.setup}` : ""}`}
            . {source.startsWith("simulated") && "Simulated: a model of a hand, not you."}
          </p>
        </div>
      )}
      {live.fault && <FaultView error={live.fault} />}
      <LiveFace live={live} target={setting.target} />
      {way === "strap" && <StrapPulls live={live} target={setting.target} />}
      <div className="sticky bottom-0 bg-paper">
        {live.kept && (
          <KeepIt
            kept={live.kept}
            simulated={source.startsWith("simulated")}
            onGone={live.forget}
          />
        )}
        <footer className="flex flex-wrap justify-center gap-2 border-t border-line bg-paper px-4 py-2">
          <BigButton main hint="Space" disabled={live.state === "begins"} onClick={toggle}>
            {runs ? "Stop" : live.state === "begins" ? "Opening…" : "Start"}
          </BigButton>
          <BigButton hint="M" onClick={() => setSound(!sound)}>
            {sound ? "Sound off" : "Sound on"}
          </BigButton>
        </footer>
      </div>
    </div>
  );
}
