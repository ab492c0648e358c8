import { useWatched } from "../../api/watched";
import { useRemembered } from "../../ui/useRemembered";
import { CAMERAS, type CameraChoice, type MeterChoice, type SayChoice } from "./choices";

export type RunChoices = ReturnType<typeof useRunChoices>;

/** How sessions are run, remembered in this browser. */
export function useRunChoices() {
  const [wanted, setCamera] = useRemembered<CameraChoice>("camera", "none");
  const watched = useWatched().data?.state === "watching";
  const cameras = CAMERAS.filter((one) => one.value !== "folder" || watched);
  const camera: CameraChoice = wanted === "folder" && !watched ? "none" : wanted;
  const [say, setSay] = useRemembered<SayChoice>("say", "advice");
  const [meter, setMeter] = useRemembered<MeterChoice>("runner-meter", "none");
  return { camera, cameras, setCamera, say, setSay, meter, setMeter };
}
